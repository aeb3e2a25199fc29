// The board: all of the hardware that the program touches. This is for boards with the
// common digitalRead and analogWrite; for another board change this file alone.
//
// Contacts: between the pin and ground. Outputs: a driver board's input, never a load.
#pragma once
#include <stdint.h>

#ifdef ZAPBARN_HOST  // on a computer, for the tests
void startHardware();
void startInput(uint8_t pin);
void startOutput(uint8_t pin);
uint32_t clockMillis();
bool contactClosed(int input, uint8_t pin);
void setLevel(int channel, uint8_t pin, int percent);
#else
#include "board.h"  // your board's own: pinMode, digitalRead, digitalWrite, analogWrite, millis
static inline void startHardware() {}
static inline void startInput(uint8_t pin) { pinMode(pin, INPUT_PULLUP); }
static inline void startOutput(uint8_t pin) { digitalWrite(pin, LOW); pinMode(pin, OUTPUT); }
static inline uint32_t clockMillis() { return millis(); }
static inline bool contactClosed(int, uint8_t pin) { return digitalRead(pin) == LOW; }
static inline void setLevel(int, uint8_t pin, int percent) {
  if (percent <= 0) digitalWrite(pin, LOW);
  else if (percent >= 100) digitalWrite(pin, HIGH);
  else analogWrite(pin, percent * 255 / 100);
}
#endif
