import { useEffect, useState } from "react";
import { isInMemory, listenToBoxes } from "@/api/boxes";
import { type Waiting, besides, drop, listen, send, waiting } from "@/api/outbox";

/** Whether all that was tapped has reached the server; what waits is safe on this device. */
export function BoxState() {
  const [box, setBox] = useState<Waiting[]>([]);
  const [beside, setBeside] = useState<string[]>([]);
  const [online, setOnline] = useState(navigator.onLine);
  const [memory, setMemory] = useState(isInMemory);
  useEffect(() => {
    const look = () => {
      void waiting().then(setBox);
      void besides().then(setBeside);
    };
    const line = () => setOnline(navigator.onLine);
    look();
    void send();
    const stop = listen(look);
    const stopBoxes = listenToBoxes(() => setMemory(isInMemory()));
    window.addEventListener("online", line);
    window.addEventListener("offline", line);
    return () => {
      stop();
      stopBoxes();
      window.removeEventListener("online", line);
      window.removeEventListener("offline", line);
    };
  }, []);
  const refused = box.filter((one) => one.refused);
  const left = box.length - refused.length;
  return (
    <span className="text-sm">
      <span
        role="status"
        className={left > 0 || !online ? "text-caution" : "whitespace-nowrap text-ink-2"}
      >
        {left > 0
          ? `${left} log${left === 1 ? "" : "s"} saved here, not sent yet`
          : online
            ? "all sent"
            : "no connection; taps are saved here"}
      </span>
      {memory && (
        <span role="status" className="block text-caution">
          This browser gives no room to save on: what you tap is sent at once, but lost if the page
          closes without a connection. Keep it open until all is sent.
        </span>
      )}
      {beside.length > 0 && (
        <span role="status" className="block text-caution">
          {beside.join(", ")}: logged elsewhere too. Both versions are kept; choose one in the Log.
        </span>
      )}
      {refused.map((one) => (
        <span key={one.id} role="alert" className="block text-high">
          {one.name}: {one.refused}{" "}
          <button type="button" className="trail-link" onClick={() => void drop(one.id)}>
            Dismiss
          </button>
        </span>
      ))}
    </span>
  );
}
