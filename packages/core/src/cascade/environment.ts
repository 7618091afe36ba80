/** Where a page is looked at: medium and window size in CSS pixels. */
export interface Environment {
  readonly medium: 'screen' | 'print';
  readonly width: number;
  readonly height: number;
}

export const desktop: Environment = { medium: 'screen', width: 1280, height: 800 };
