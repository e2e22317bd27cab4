/** The browser's FileReader, as far as the stores use it. */
export class TestFileReader {
  result = '';
  onload: (() => void) | null = null;

  readAsDataURL(blob: Blob): void {
    void blob.arrayBuffer().then((bytes) => {
      this.result = `data:${blob.type};base64,${Buffer.from(bytes).toString('base64')}`;
      this.onload?.();
    });
  }
}
