/** Where the page is and how to go elsewhere: views ask here, the router answers. */

interface Navigator {
  to(path: string, replace?: boolean): Promise<unknown>;
  readonly pathname: string;
}

let router: Navigator = {
  to: () => Promise.resolve(),
  get pathname() {
    return location.pathname;
  },
};

/** Called once by the router; nothing that is shown has to know it. */
export function navigateBy(navigator: Navigator): void {
  router = navigator;
}

/** The address that is open; what depends on it follows it. */
export const route = {
  get pathname(): string {
    return router.pathname;
  },
};

/** Open a page. */
export const goToPath = (path: string): Promise<unknown> => router.to(path);

/** The open page's own address, in place of an older one: going back does not lead there again. */
export const nameItself = (path: string): Promise<unknown> => router.to(path, true);
