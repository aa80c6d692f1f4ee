import { main } from './index';

process.exitCode = main(process.argv.slice(2), (text) => console.log(text), (text) => console.error(text));
