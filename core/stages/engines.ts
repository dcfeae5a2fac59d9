import { evaluateCalibration } from "./calibration/evaluate";
import { evaluateCurves } from "./curve/evaluate";
import { evaluateIsotherm } from "./isotherm/evaluate";
import { provideEngine } from "./late";
import { evaluateRate } from "./rate/evaluate";
import { evaluateUnknown } from "./unknown/evaluate";

provideEngine("calibration", evaluateCalibration);
provideEngine("unknown", evaluateUnknown);
provideEngine("rate", evaluateRate);
provideEngine("curve", evaluateCurves);
provideEngine("isotherm", evaluateIsotherm);
