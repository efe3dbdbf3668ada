/** Does what arrived fit the contract? See validatorsPlugin.ts. */
declare module 'virtual:fits/*' {
  const fits: (data: unknown) => boolean;
  export default fits;
}
