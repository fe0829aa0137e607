import { measureColoursAndEdges } from './colours-and-edges.ts';


measureColoursAndEdges();

