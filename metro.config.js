const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);
const { resolveRequest } = config.resolver;
// Icons are paths of the few that are used (src/ui/kit/Icon.tsx): the icon fonts that Paper would fall back to, and their tables of names, are left out.
config.resolver.resolveRequest = (context, name, platform) =>
  name.startsWith('@expo/vector-icons') || name.startsWith('@react-native-vector-icons/')
    ? { type: 'empty' }
    : (resolveRequest ?? context.resolveRequest)(context, name, platform);

module.exports = config;
