/* global AudioWorkletProcessor, registerProcessor */
/** Hands what the microphone gives to the page, block by block, as it is. */
class Recorder extends AudioWorkletProcessor {
  process(inputs) {
    const channel = inputs[0] && inputs[0][0];
    if (channel && channel.length) this.port.postMessage(channel.slice(0));
    return true;
  }
}
registerProcessor('lyrandis-recorder', Recorder);
