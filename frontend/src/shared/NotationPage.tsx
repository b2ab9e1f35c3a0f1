import Markdown from "react-markdown";
import remarkGfm from "remark-gfm";
import page from "../../../docs/notation.md?raw";

/** The page on the notation, laid out. */
export function NotationPage() {
  return (
    <div className="page pb-4">
      <Markdown remarkPlugins={[remarkGfm]} components={{ h1: () => null }}>
        {page}
      </Markdown>
    </div>
  );
}
