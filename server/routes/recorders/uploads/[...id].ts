import { uploads } from '~~/server/http/uploads'

export default uploads
