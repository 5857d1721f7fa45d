package pyrite.core.execution;

import pyrite.core.dynamics.Draw;
import pyrite.core.dynamics.Moment;

/** Decides what a run leaves open, in the place of chance and of the order of declaration. */
interface Choices {
    /** One of several things that are due at the same instant. */
    int among(int options);

    /** What is drawn. */
    double draw(Draw draw, RandomStreams usual, Moment moment);

    /** The order of declaration, and chance. */
    Choices USUAL = new Choices() {
        @Override
        public int among(int options) {
            return 0;
        }

        @Override
        public double draw(Draw draw, RandomStreams usual, Moment moment) {
            return usual.next(draw, moment);
        }
    };
}
