/* global AudioWorkletProcessor, registerProcessor */
/* Hands on what the microphone hears, piece by piece; nothing of it is kept here. */
class Listen extends AudioWorkletProcessor {
  process([input]) {
    if (input && input[0]) this.port.postMessage(input[0].slice());
    return true;
  }
}
registerProcessor("listen", Listen);
