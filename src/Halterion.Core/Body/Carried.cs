namespace Halterion.Core.Body;

/// <summary>In what a weight is carried.</summary>
public enum CarriedBy
{
    /// <summary>Both hands hold one.</summary>
    BothHands,

    /// <summary>One in each hand.</summary>
    EachHand,
    /// <summary>In the right hand.</summary>
    RightHand,
    /// <summary>In the left hand.</summary>
    LeftHand,

    /// <summary>A bar behind the neck, held by both hands.</summary>
    Shoulders,

    /// <summary>On the hips of a body that bridges, both hands on it.</summary>
    Hips,
}

/// <summary>What is held: the implement, its kilograms each, and what it weighs in shares of body mass in all.</summary>
/// <param name="Kind">dumbbell, kettlebell, barbell, plate, ball, bottle, stick.</param>
public sealed record Carried(string Kind, double Kg, double Share, CarriedBy By)
{
    /// <summary>Where it is: the middle of each, seen from a skeleton.</summary>
    public IEnumerable<(Vec At, double Share)> At(Skeleton s)
    {
        var (left, right) = (s[Joint.LeftHand], s[Joint.RightHand]);
        switch (By)
        {
            case CarriedBy.BothHands:
                yield return (left.Towards(right, 0.5), Share);
                break;
            case CarriedBy.EachHand:
                yield return (left, Share / 2);
                yield return (right, Share / 2);
                break;
            case CarriedBy.RightHand:
                yield return (right, Share);
                break;
            case CarriedBy.LeftHand:
                yield return (left, Share);
                break;
            case CarriedBy.Shoulders:
                yield return (s[Joint.Chest] + s.Chest.Of(new Vec(-0.05, 0, 0.03)), Share);
                break;
            default:
                yield return (s[Joint.Pelvis] + s.Hips.Of(new Vec(0.085, 0, -0.01)), Share);
                break;
        }
    }

    /// <summary>Centre of mass of body and load together.</summary>
    public static Vec Centre(Skeleton s, Carried? load)
    {
        var body = s.CentreOfMass;
        if (load is null)
        {
            return body;
        }

        var (sum, share) = (body, 1.0);
        foreach (var (at, part) in load.At(s))
        {
            (sum, share) = (sum + at * part, share + part);
        }

        return sum * (1 / share);
    }
}
