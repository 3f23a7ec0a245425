/** The demo's own id, so that it is loaded once and recognised when its file is imported again. */
export const DEMO_ID = '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b10'
