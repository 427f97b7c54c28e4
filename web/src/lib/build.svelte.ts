/** Which build of the page this is, and whether the server has another one by now. */

/** Name of the script this page was begun with. */
const own = document.querySelector<HTMLScriptElement>('script[type=module][src]')?.src ?? '';

class Build {
  newer = $state(false);

  /** Take in what an answer says of the build the server has. */
  notice(answer: Response): void {
    const served = answer.headers.get('x-lyrandis-page');
    if (served && own) this.newer = !own.endsWith(served);
  }
}

export const build = new Build();
