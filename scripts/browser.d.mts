export declare const CHROMIUM: string;
export declare const CHROMEDRIVER: string;
export declare const CHROMIUM_ARGUMENTS: readonly string[];
