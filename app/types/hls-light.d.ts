/** The light build has the same face as the whole one; the package declares types for the latter alone. */
declare module 'hls.js/light' {
  import Hls from 'hls.js'

  export default Hls
}
