/** A token, nothing, or what is measured by its own content; negative and `em` only where a sign is drawn. */
const SPACE = String.raw`(0|auto|var\(--(space-\d|apart)\)|-?\d+(\.\d+)?px(?=$)|calc\(-1 \* var\(--[a-z-]+\)\))`;

/** Keeps the sheets to the sizes in web/styles/_tokens.scss. */
export default {
  customSyntax: 'postcss-scss',
  reportNeedlessDisables: true,
  reportDescriptionlessDisables: true,
  rules: {
    'declaration-property-value-allowed-list': {
      'font-size': [/^var\(--text-[a-z]+\)$/],
      '/^(padding|margin|gap|row-gap|column-gap)/': [new RegExp(`^${SPACE}( ${SPACE})*$`)],
      '/^border-(.*-)?radius$/': [/^(0|var\(--radius-\d\))$/],
    },
    'media-feature-name-value-allowed-list': {
      '/^(min|max)-width$/': ['/^bp\\./'],
    },
    'color-no-hex': true,
  },
};
