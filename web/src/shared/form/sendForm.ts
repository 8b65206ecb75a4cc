export interface Answer<T> {
  status: number;
  body: T;
}

/** Sends a form and says how far it has come; can be given up. */
export function sendForm<T>(
  path: string,
  form: FormData,
  onSent: (share: number) => void,
  signal: AbortSignal,
): Promise<Answer<T>> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", path);
    request.responseType = "json";
    request.upload.onprogress = (event) => event.lengthComputable && onSent(event.loaded / event.total);
    request.upload.onload = () => onSent(1);
    request.onload = () => resolve({ status: request.status, body: request.response as T });
    request.onerror = () => reject(new Error("The server doesn’t answer. Your files are untouched; try again."));
    request.onabort = () => reject(new DOMException("given up", "AbortError"));
    signal.addEventListener("abort", () => request.abort());
    request.send(form);
  });
}
