export { adaptTo } from './adapt';
