/** A pointer on a drawing: where it stands, and handles that are dragged by it. */
interface Place {
  x: number;
  y: number;
}

/** Return where a pointer stands, in the drawing's own units. */
export function placeOn(svg: SVGSVGElement, event: PointerEvent): Place {
  const box = svg.getBoundingClientRect();
  const { width, height } = svg.viewBox.baseVal;
  return {
    x: ((event.clientX - box.left) / box.width) * width,
    y: ((event.clientY - box.top) / box.height) * height,
  };
}

/** What a handle listens to: held down it follows the pointer, whatever that moves over. */
export function dragged(move: (place: Place) => void) {
  const follow = (event: PointerEvent) => {
    const handle = event.currentTarget as SVGElement;
    const svg = handle.ownerSVGElement;
    if (svg && handle.hasPointerCapture(event.pointerId)) move(placeOn(svg, event));
  };
  return {
    onpointerdown: (event: PointerEvent) => {
      (event.currentTarget as SVGElement).setPointerCapture(event.pointerId);
      follow(event);
    },
    onpointermove: follow,
  };
}
