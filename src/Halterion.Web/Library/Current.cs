using Halterion.Core.Moves;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Store;

namespace Halterion.Web.Library;

/// <summary>The library and the preferences as they are now, read again only after they were changed.</summary>
internal sealed class Current(ShippedMoves shipped, OwnMoves own, Settings settings, LearntPaces paces)
{
    private readonly Lock gate = new();
    private volatile Evaluator? evaluator;
    private int changes;

    /// <summary>One that is made while something is changed is given to who asked for it, and to nobody after.</summary>
    public Evaluator Evaluator
    {
        get
        {
            if (evaluator is { } known)
            {
                return known;
            }

            var before = Volatile.Read(ref changes);
            var preferences = settings.Preferences();
            var made = new Evaluator(
                shipped.With(own), preferences.Pace == Pace.Real ? preferences with { Real = paces.Factors() } : preferences);
            lock (gate)
            {
                if (before == changes)
                {
                    evaluator = made;
                }
            }

            return made;
        }
    }

    public MoveLibrary Moves => Evaluator.Moves;

    public Preferences Preferences => Evaluator.Preferences;

    /// <summary>Measures the classes that an older version, or another library, has measured.</summary>
    public void Measure(Classes classes)
    {
        foreach (var stored in classes.Unmeasured(Moves.Version))
        {
            classes.SetMeasure(stored.Id, stored.Version, ClassText.Measure(stored.Plan, Evaluator));
        }
    }

    /// <summary>Own moves or preferences have been changed, or a class was led from which a pace is learnt.</summary>
    public void Forget()
    {
        lock (gate)
        {
            changes++;
            evaluator = null;
        }
    }
}
