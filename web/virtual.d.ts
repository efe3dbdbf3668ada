declare module 'virtual:validators' {
  type Validator = (data: unknown) => boolean;
  export const isSessionState: Validator;
  export const isClassList: Validator;
  export const isClassDetail: Validator;
  export const isPatternList: Validator;
  export const isPlanList: Validator;
  export const isMastery: Validator;
  export const isJudgingPreview: Validator;
  export const isTakeDetail: Validator;
  export const isErrorBody: Validator;
}
