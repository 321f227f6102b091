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
    protected const string Common = "Common practice, no source";
    protected const string Ours = "[M] Our choice";

    public string Code => code;

    public string Says => says;

    public string Why => why;

    public string Source => source;

    public string Others => others;

    /// <summary>What it finds is waived for the occasion: it depends on who comes, and where.</summary>
    public bool OfSession => code.Split('.')[0] is "people" or "kit" or "room" or "week";

    public abstract IEnumerable<Finding> Check(ClassReview review);

    protected Finding Found(Severity severity, PlaceId place, string what, params ImmutableArray<Repair> repairs) =>
        new(code, severity, place, what, repairs) { Why = why, Source = source, Others = others, OfSession = OfSession };
}
