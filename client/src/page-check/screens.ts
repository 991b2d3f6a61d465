interface Screen {
  viewport?: number;
  density?: number;
}

/** Tells what belongs to a screen of a width and density. */
export const isOn = (screen: Screen) => (one: Screen) =>
  one.viewport === screen.viewport && one.density === screen.density;
