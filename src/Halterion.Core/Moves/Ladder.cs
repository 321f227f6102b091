using System.Collections.Immutable;
using System.Text.Json;

namespace Halterion.Core.Moves;

/// <summary>One step of a ladder: a move done in a certain way.</summary>
/// <param name="With">Option fields of the plan language that set this step apart, such as depth or support.</param>
/// <param name="Dimension">What makes it harder than the step below (handbook, section 5): depth, support, base, load, tempo, impact or
/// complexity.</param>
/// <param name="Up">Why it is harder than the step below, in words.</param>
/// <param name="Down">Why it is easier than the step above, in words.</param>
public sealed record Rung(MoveId Move, JsonElement? With, string Dimension, string Up, string Down);

/// <summary>Steps from easier to harder.</summary>
public sealed record Ladder(string Name, ImmutableArray<Rung> Rungs)
{
    /// <summary>Where a move stands on it done plainly; -1 if it does not.</summary>
    public int PlainRung(MoveId id)
    {
        for (var i = 0; i < Rungs.Length; i++)
        {
            if (Rungs[i].Move == id && Rungs[i].With is null)
            {
                return i;
            }
        }

        return -1;
    }
}
