package bake.desktop.station.prove;

import bake.desktop.work.CompareHand;
import bake.desktop.work.Document;
import bake.desktop.work.ModelFiles;
import bake.desktop.work.NoiseHand;
import bake.desktop.work.Prints;
import bake.desktop.work.Prover;
import bake.desktop.work.TakeBackHand;

/** What the Prove station works with. */
public record ProveWork(Document document, ModelFiles models, Prover prover, Prints prints, CompareHand comparing,
        TakeBackHand takingBack, NoiseHand noise) {}
