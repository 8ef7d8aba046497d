import { setNonce } from "get-nonce";

/** Lets the primitives' own style elements through the page's content policy; imported before anything else. */
const meta = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]');
if (meta) setNonce(meta.nonce || (meta.getAttribute("nonce") ?? ""));
