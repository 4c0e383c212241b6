import { LineChart } from 'echarts/charts';
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components';
import { init, use, type EChartsType } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { formatAmount } from '@helb/core';

use([LineChart, GridComponent, LegendComponent, TooltipComponent, CanvasRenderer]);

/** A line over the time, in the unit that is shown. */
interface ChartLine {
  readonly name: string;
  readonly values: readonly (number | null)[];
}

const colourOf = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
const LINES = ['--link', '--act', '--loose', '--muted'];

/** A chart of lines over a time, drawn into an element. */
export class TimeChart {
  private readonly chart: EChartsType;
  private readonly watcher: ResizeObserver;

  /** @param seek told the time, s, at which the chart is pressed @param drawn told after the chart was laid out anew */
  constructor(element: HTMLElement, seek: (time: number) => void, drawn: () => void) {
    this.chart = init(element);
    this.chart.getZr().on('click', ({ offsetX, offsetY }) => {
      const at = this.chart.convertFromPixel({ gridIndex: 0 }, [offsetX, offsetY]) as number[] | undefined;
      if (at) seek(at[0]!);
    });
    this.watcher = new ResizeObserver(() => {
      this.chart.resize();
      drawn();
    });
    this.watcher.observe(element);
  }

  show(times: readonly number[], lines: readonly ChartLine[], unit: string): void {
    const [muted, rule, sheet, ink] = ['--muted', '--rule', '--lit', '--ink'].map(colourOf);
    const axis = {
      axisLabel: { color: muted, fontSize: 11, formatter: (value: number) => formatAmount(value, 4) },
      axisLine: { lineStyle: { color: rule } },
      splitLine: { lineStyle: { color: rule } },
      nameTextStyle: { color: muted, fontSize: 11 },
    };
    this.chart.setOption(
      {
        animation: false,
        grid: { left: 8, right: 28, top: 26, bottom: 4, containLabel: true },
        legend: { show: lines.length > 1, top: 0, right: 0, itemWidth: 14, textStyle: { color: muted, fontSize: 11 } },
        tooltip: {
          trigger: 'axis',
          ...{ backgroundColor: sheet, borderColor: rule, textStyle: { color: ink, fontSize: 12 } },
          valueFormatter: (value: unknown) => (typeof value === 'number' ? `${formatAmount(value, 3)} ${unit}` : '–'),
        },
        xAxis: { type: 'value', min: times[0] ?? 0, max: times.at(-1) ?? 1, name: 's', nameGap: 6, ...axis },
        yAxis: { type: 'value', scale: true, name: unit, nameGap: 8, ...axis },
        series: lines.map(({ name, values }, k) => ({
          ...{ type: 'line', name, showSymbol: false, color: colourOf(LINES[k % LINES.length]!) },
          lineStyle: { width: 1.5 },
          data: values.map((value, n) => [times[n], value]),
        })),
      },
      { notMerge: true },
    );
  }

  /** Where a time lies, px from the left, and from where to where lines go down. */
  at(time: number): { readonly x: number; readonly top: number; readonly bottom: number } | undefined {
    const x = this.chart.convertToPixel({ xAxisIndex: 0 }, time) as number | undefined;
    return x === undefined || Number.isNaN(x) ? undefined : { x, top: 26, bottom: this.chart.getHeight() - 24 };
  }

  png = (): string => this.chart.getDataURL({ type: 'png', pixelRatio: 2, backgroundColor: colourOf('--sheet') });

  end(): void {
    this.watcher.disconnect();
    this.chart.dispose();
  }
}
