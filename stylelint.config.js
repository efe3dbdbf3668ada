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
    // Pages may be read from right to left; what stands on the axis of time is left to right (theme.scss).
    'property-disallowed-list': [/^(margin|padding|border)-(left|right)/],
    'declaration-property-value-disallowed-list': { 'text-align': ['left', 'right'], float: ['left', 'right'] },
  },
  overrides: [
    {
      files: ['web/ruler/*', 'web/strips/*', 'web/leading/togetherBand.scss', 'web/pages/values/*'],
      rules: { 'property-disallowed-list': null },
    },
  ],
};
