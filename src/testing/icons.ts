/** Icons are glyphs of a font; tests need none. */
const Icon = () => null;
export default Icon;
