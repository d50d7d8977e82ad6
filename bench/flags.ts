/** What follows `--name=` on the command line. */
export const flag = (name: string): string | undefined =>
  process.argv.find((each) => each.startsWith(`--${name}=`))?.split('=')[1];
