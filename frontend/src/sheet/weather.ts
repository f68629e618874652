/** The weathers of the stand-in sky. */
import type { components } from '../api/schema';

export type Weather = components['schemas']['AskWeather']['weather'];
export const WEATHERS: readonly Weather[] = ['as planned', 'passing cloud', 'dull evening', 'haze'];
/** Those over a camera that stays for weeks. */
export const LONG_WEATHERS: readonly Weather[] = ['as planned', 'uneven days', 'dark weeks'];
