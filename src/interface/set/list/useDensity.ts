import { useState } from "react";

const key = "zendle.rows";

/** Whether the list shows dense rows; remembered in this browser. */
export function useDensity(): [boolean, (dense: boolean) => void] {
  const [dense, setDense] = useState(() => localStorage.getItem(key) === "dense");
  return [
    dense,
    (next) => {
      localStorage.setItem(key, next ? "dense" : "roomy");
      setDense(next);
    },
  ];
}
