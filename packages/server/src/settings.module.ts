import { Global, Module, type DynamicModule } from '@nestjs/common';
import type { Settings } from './settings.js';
import { SETTINGS } from './settings.token.js';

/** Makes the settings known to every module. */
@Global()
@Module({})
export class SettingsModule {
  static of(settings: Settings): DynamicModule {
    return {
      module: SettingsModule,
      providers: [{ provide: SETTINGS, useValue: settings }],
      exports: [SETTINGS],
    };
  }
}
