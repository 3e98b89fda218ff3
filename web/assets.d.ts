/** Files that the build puts beside the scripts: their addresses. */
declare module '*?url' {
  const address: string
  export default address
}
