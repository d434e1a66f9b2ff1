import vm from 'node:vm';
import { TestEnvironment } from 'jest-environment-node';

/**
 * Jest's own environment, in a context whose globals are plain: behind its sandbox every `Math` and `Float64Array` of a module is
 * asked for through a proxy, and what computes takes three times as long.
 */
export default class PlainContext extends TestEnvironment {
  constructor(config, context) {
    const { createContext } = vm;
    vm.createContext = () => createContext(vm.constants.DONT_CONTEXTIFY);
    try {
      super(config, context);
    } finally {
      vm.createContext = createContext;
    }
  }
}
