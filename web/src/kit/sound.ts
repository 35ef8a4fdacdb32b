/** Plays one of the sounds of rings; false where the browser keeps it off. */
export async function play(sound: string): Promise<boolean> {
  if (sound === "none") return true;
  try {
    await new Audio(`/sounds/${sound}.wav`).play();
    return true;
  } catch (e) {
    return !(e instanceof DOMException && e.name === "NotAllowedError");
  }
}
