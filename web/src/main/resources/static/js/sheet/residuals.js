// The Accuracy stage on the sheet: residuals at their points, level as arrows, heights as strokes beside them, all at one scale.
const LONGEST_PX = 46;

export class Residuals {
  /** @param sheet of the Accuracy stage */
  constructor(sheet) {
    this.sheet = sheet;
    this.dimmed = 0.15;
  }

  begin() {
    // Arrows keep their length on the screen, so that they are drawn anew at every scale.
    const { board, view } = this.sheet;
    board.hear(view, "change:resolution", () => this.drawn && this.draw());
  }

  async load() {
    const drawn = await this.sheet.ask(`/blocks/${this.sheet.block}/accuracy.json`);
    if (!drawn) return;
    this.drawn = drawn;
    this.draw();
    this.sheet.element.dataset.residuals = String(this.drawn.points.length);
  }

  draw() {
    const { Feature, geom } = window.ol;
    const { points, mostM } = this.drawn;
    const source = this.sheet.sources.residuals;
    source.clear(true);
    if (mostM === 0) return;
    const resolution = this.sheet.view.getResolution();
    const longer = (LONGEST_PX * resolution) / mostM;
    for (const { name, east, north, dE, dN, dH, out } of points) {
      const parts = [];
      const level = Math.hypot(dE, dN);
      if (level > 0) {
        const tip = [east + dE * longer, north + dN * longer];
        const ux = (dE / level) * 6 * resolution;
        const uy = (dN / level) * 6 * resolution;
        const barb = (side) => [tip[0] - ux - side * uy * 0.6, tip[1] - uy + side * ux * 0.6];
        parts.push([
          [[east, north], tip],
          [barb(1), tip, barb(-1)],
        ]);
        source.addFeature(new Feature({ geometry: new geom.MultiLineString(parts[0]), out }));
      }
      if (dH !== 0) {
        const x = east + 5 * resolution;
        const line = new geom.LineString([
          [x, north],
          [x, north + dH * longer],
        ]);
        source.addFeature(new Feature({ geometry: line, height: true, out }));
      }
      source.addFeature(new Feature({ geometry: new geom.Point([east, north]), name }));
    }
    this.legend();
  }

  legend() {
    const box = this.sheet.element.querySelector(".residual-legend");
    box.hidden = this.drawn.points.length === 0;
    box.querySelector("span").textContent = this.drawn.legend;
  }
}
