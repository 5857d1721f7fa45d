// Starts what every page has, and what this page has besides.
import { startEditing } from './element/edit.js';
import { startRestoring } from './element/restore.js';
import { startFind } from './frame/find.js';
import { startHistory } from './frame/history.js';
import { startKeys } from './frame/keys.js';
import { startLive } from './frame/live.js';
import { startThread } from './frame/thread.js';
import { startDiagram } from './architecture/diagram.js';
import { startNotation } from './architecture/notation.js';
import { startOutline } from './architecture/outline.js';
import { startExhibits } from './requirements/exhibit.js';
import { startRuns } from './runs/runs.js';
import { startSeries } from './runs/series.js';

startLive();
startEditing();
startRestoring();
startHistory();
startThread();
startFind();
startKeys();
startOutline();
startDiagram();
startNotation();
startExhibits();
startRuns();
startSeries();
