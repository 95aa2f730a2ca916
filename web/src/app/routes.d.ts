import 'vue-router';

declare module 'vue-router' {
  interface RouteMeta {
    /** The key of the page's title; a page that has none names itself. */
    title?: string;
    /** Whether the frame says the title as a heading, because the page itself does not show one. */
    heading?: boolean;
    /** Whether nobody has to have signed in. */
    open?: boolean;
  }
}
