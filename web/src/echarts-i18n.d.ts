declare module 'echarts/i18n/langDE-obj.js' {
  import type { registerLocale } from 'echarts/core';

  const german: Parameters<typeof registerLocale>[1];
  export default german;
}
