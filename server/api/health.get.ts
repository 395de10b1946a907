import { health } from '../http/health'

export default health
