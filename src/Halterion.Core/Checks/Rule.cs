using System.Collections.Immutable;

namespace Halterion.Core.Checks;

/// <summary>One check. It reads like its sentence in the handbook.</summary>
/// <param name="code">Stable, such as <c>time.over</c>.</param>
/// <param name="says">What is well, as a sentence.</param>
/// <param name="why">What goes wrong otherwise.</param>
/// <param name="source">Where it comes from.</param>
/// <param name="others">What others do, where a school does otherwise.</param>
public abstract class Rule(string code, string says, string why, string source, string others = "")
{
    /// <summary>Common practice, no source.</summary>
    protected const string Common = "Common practice";
    /// <summary>Our own choice.</summary>
    protected const string Ours = "Our own limit";

    /// <summary>Names it in waivers and settings.</summary>
    public string Code => code;

    /// <summary>What is right, in a sentence.</summary>
    public string Says => says;

    /// <summary>What is said where it finds more than one place, after their number; null: it never does.</summary>
    public virtual string? Several => null;

    /// <summary>Why it matters.</summary>
    public string Why => why;

    /// <summary>Where it comes from.</summary>
    public string Source => source;

    /// <summary>What other schools do.</summary>
    public string Others => others;

    /// <summary>What it finds is waived for the occasion: it depends on who comes, and where.</summary>
    public bool OfSession => code.Split('.')[0] is "people" or "kit" or "room" or "week";

    /// <summary>What it finds in a class.</summary>
    public abstract IEnumerable<Finding> Check(ClassReview review);

    /// <summary>A finding of this rule.</summary>
    protected Finding Found(Severity severity, PlaceId place, string what, params ImmutableArray<Repair> repairs) =>
        new(code, severity, place, what, repairs) { Why = why, Source = source, Others = others, OfSession = OfSession };
}
