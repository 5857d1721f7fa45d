package pyrite.core.model;

/** The qualified names of library elements that have a meaning in the engine. Their texts are resources of core. */
public final class LibraryNames {
    public static final String REAL = "ScalarValues::Real";
    public static final String RATIONAL = "ScalarValues::Rational";
    public static final String INTEGER = "ScalarValues::Integer";
    public static final String NATURAL = "ScalarValues::Natural";
    public static final String POSITIVE = "ScalarValues::Positive";
    public static final String BOOLEAN = "ScalarValues::Boolean";
    public static final String STRING = "ScalarValues::String";
    public static final String QUANTITY = "Quantities::ScalarQuantityValue";
    public static final String QUANTITY_DIMENSION = "Quantities::ScalarQuantityValue::dimension";
    public static final String COHERENT_UNIT = "Quantities::ScalarQuantityValue::coherentUnit";
    public static final String UNIT = "MeasurementReferences::MeasurementUnit";
    public static final String UNIT_DIMENSION = "MeasurementReferences::MeasurementUnit::dimension";
    public static final String UNIT_CONVERSION = "MeasurementReferences::MeasurementUnit::unitConversion";
    public static final String REFERENCE_UNIT = "MeasurementReferences::UnitConversion::referenceUnit";
    public static final String CONVERSION_FACTOR = "MeasurementReferences::UnitConversion::conversionFactor";
    public static final String CONVERSION_PREFIX = "MeasurementReferences::ConversionByPrefix::prefix";
    public static final String PREFIX_FACTOR = "MeasurementReferences::UnitPrefix::conversionFactor";
    public static final String CALCULATION_RESULT = "Calculations::Calculation::result";

    /** The feature by which metadata says what is marked with it inherits from. */
    public static final String BASE_TYPE = "baseType";

    public static final String INTERVAL_SCALE = "MeasurementReferences::IntervalScale";
    public static final String SCALE_UNIT = "MeasurementReferences::IntervalScale::unit";
    public static final String SCALE_ZERO = "MeasurementReferences::IntervalScale::zero";
    public static final String TIME = "Dynamics::time";
    public static final String DERIVATIVE = "Dynamics::der";
    public static final String TOTAL = "Budgets::total";
    public static final String TIME_RUN = "Dynamics::TimeRun";
    public static final String SIMULATED_CHECK = "Dynamics::SimulatedCheck";

    public static final String RECORDING = "Recordings::Recording";

    public static final String POOL = "Execution::Pool";
    public static final String CAPACITY = "Execution::Pool::capacity";
    public static final String CHANNEL = "Execution::Channel";
    public static final String PACED_FLOW = "Execution::PacedFlow";

    private LibraryNames() {}

    public static ElementId id(String qualifiedName) {
        return ElementId.ofLibrary(qualifiedName);
    }
}
