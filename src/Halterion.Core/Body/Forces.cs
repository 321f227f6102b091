using System.Collections.Immutable;
using static Halterion.Core.Body.Anthropometry;

namespace Halterion.Core.Body;

/// <summary>Net moments at a leg, N·m; positive: the muscles that straighten the joint (point the foot) hold against it.</summary>
/// <param name="Side">About the way forward at the hip: what holds the pelvis level over a leg.</param>
/// <param name="Share">Of the weight that goes through this leg's foot or knee.</param>
public sealed record LegLoad(double Ankle, double Knee, double Hip, double Side, double Share);

/// <summary>Moments of a posture. A static estimate: nothing in it moves.</summary>
/// <param name="LowerBack">Above the lumbar joint, N·m; positive: what straightens the back holds.</param>
/// <param name="BackTurn">At the same place, tipping and turning together.</param>
public sealed record Moments(LegLoad Left, LegLoad Right, double LowerBack, double BackTurn);

/// <summary>
/// Static equilibrium (Winter, ch. 5, without acceleration): the weights of all segments and of what is held, and contact
/// forces that balance them. On two feet or more each force points from its place towards the centre of mass, so that in a
/// split stance both push inward (converging ground forces; Maus et al., Nat. Commun. 1:70, 2010, for walking; from memory);
/// elsewhere forces are upright, but for a wall that pushes and hands on something high. Moments at a joint come from what lies beyond it.
/// </summary>
public static class Forces
{
    /// <param name="mass">Body mass, kg.</param>
    public static Moments Of(Posture posture, Carried? load, Stature stature, double mass)
    {
        var s = Skeleton.Of(posture);
        var contacts = Contacts.Of(posture, s);
        var centre = Carried.Centre(s, load);
        var total = 1 + (load?.Share ?? 0);
        var newtons = Gravity * mass * stature.Metres;
        contacts = Settled(contacts, posture, centre);
        var forces = (contacts.FirstOrDefault(c => c.Name == Contacts.Wall) is { } wall ? AtWall(wall, contacts.Remove(wall), centre)
            : posture.On == Carrier.Hands ? OnHands(contacts, s, centre)
            : OnItsWay(contacts, posture, s, centre) is { } foot ? OnFloor(contacts.Add(foot), centre).SkipLast(1)
            : OnFloor(contacts, centre))
            .Select(f => f with { Force = f.Force * total }).ToArray();

        Vec About(Vec joint, IEnumerable<(Vec At, double Share)> weights, IEnumerable<Push> pushes) =>
            weights.Aggregate(new Vec(0, 0, 0), (sum, w) => sum + (w.At - joint).Cross(Vec.Up * -w.Share))
            + pushes.Aggregate(new Vec(0, 0, 0), (sum, f) => sum + (f.On.At - joint).Cross(f.Force));

        LegLoad Leg(int side)
        {
            var frame = posture.Hips * (side > 0 ? posture.LeftLeg : posture.RightLeg).Frame;
            var axis = frame.Of(Vec.Left);
            var (hip, knee, ankle) = (s.Of(Joint.LeftHip, side), s.Of(Joint.LeftKnee, side), s.Of(Joint.LeftAnkle, side));
            (Vec, double) foot = (s.Of(Joint.LeftHeel, side).Towards(s.Of(Joint.LeftToe, side), FootCentre), FootMass);
            (Vec, double) shank = (knee.Towards(ankle, ShankCentre), ShankMass);
            (Vec, double) thigh = (hip.Towards(knee, ThighCentre), ThighMass);
            var under = forces.Where(f => f.On.IsOf(side) && !f.On.IsArm).ToArray();
            var atFoot = under.Where(f => !f.On.IsKnee);
            var hips = About(hip, [foot, shank, thigh], under);
            return new LegLoad(
                -newtons * About(ankle, [foot], atFoot).Dot(axis),
                newtons * About(knee, [foot, shank], atFoot).Dot(axis),
                -newtons * hips.Dot(axis),
                newtons * hips.Dot(posture.Hips.Of(Vec.Forward)),
                under.Sum(f => f.Force.Z) / total);
        }

        var above = Above(s, load).ToArray();
        var hands = forces.Where(f => f.On.IsArm || f.On.Name is "shoulders" or "bench" or "chest" or Contacts.Wall);
        var back = About(s[Joint.Lumbar], above, hands);
        var (sideways, turning) = (back.Dot(posture.Hips.Of(Vec.Forward)), back.Dot(posture.Hips.Of(Vec.Up)));
        return new Moments(
            Leg(1), Leg(-1), newtons * back.Dot(posture.Hips.Of(Vec.Left)), newtons * Math.Sqrt(sideways * sideways + turning * turning));
    }

    /// <summary>
    /// The foot of a body that steps, its weight not yet (or no longer) over the other one: where it comes down. Such a body falls a little
    /// from foot to foot, and the one that stands carries as much as it would with both down.
    /// </summary>
    private static Contact? OnItsWay(ImmutableArray<Contact> contacts, Posture posture, Skeleton s, Vec centre)
    {
        if (posture.On != Carrier.Feet || contacts.Length != 1 || (centre - contacts[0].At) with { Z = 0 } is { Length: < Over })
        {
            return null;
        }

        var side = contacts[0].IsOf(1) ? -1 : 1;
        var under = s.Of(Joint.LeftHeel, side).Towards(s.Of(Joint.LeftToe, side), FootCentre) with { Z = 0 };
        return ((under - contacts[0].At) with { Z = 0 }).Length < 2 * Over ? null : new Contact(side > 0 ? "leftFoot" : "rightFoot", under);
    }

    /// <summary>A centre of mass so near to a foot is over it.</summary>
    private const double Over = 0.05;

    /// <summary>What a place pushes with, in body weights.</summary>
    private readonly record struct Push(Contact On, Vec Force);

    private static IEnumerable<Push> OnFloor(ImmutableArray<Contact> contacts, Vec centre)
    {
        var shares = Contacts.Shares(contacts, centre);
        var steepest = Contacts.OnFeet(contacts) ? contacts.Max(c => Inward(c.At, centre).Length) : 0;
        var bent = steepest <= 0 || contacts.Length == 1 ? 0 : Math.Min(1, Flattest / steepest);
        return contacts.Select((c, i) => new Push(c, (Vec.Up + Inward(c.At, centre) * bent) * shares[i]));
    }

    /// <summary>Hands that are higher push square to the body, and the feet hold against it; on the floor both push upright.</summary>
    private static IEnumerable<Push> OnHands(ImmutableArray<Contact> contacts, Skeleton s, Vec centre)
    {
        var upright = OnFloor(contacts, centre).ToArray();
        var body = s[Joint.Chest] - contacts.Where(c => !c.IsArm).Select(c => c.At).DefaultIfEmpty(s[Joint.Pelvis]).First();
        var raised = contacts.Where(c => c.IsArm).Select(c => c.At.Z).DefaultIfEmpty(0).Max() - ArmWords.Palm;
        double Lean(double z) => Math.Asin(Math.Clamp(z / body.Length, -1, 1));
        var back = raised < 0.02 ? 0 : Math.Tan(Lean(body.Z) - Lean(body.Z - raised));
        var (arms, legs) = (upright.Where(f => f.On.IsArm).ToArray(), upright.Where(f => !f.On.IsArm).ToArray());
        var (carried, left) = (arms.Sum(f => f.Force.Z), legs.Sum(f => f.Force.Z));
        if (back <= 0 || carried <= 0 || left <= 0)
        {
            return upright;
        }

        // About the feet: what the hands push, upright and back, holds the weight.
        Vec Middle(Push[] of, double sum) => of.Aggregate(new Vec(0, 0, 0), (at, f) => at + f.On.At * (f.Force.Z / sum));
        var way = Middle(arms, carried) - Middle(legs, left);
        var by = way.X / (way.X + way.Z * back);
        var rest = (1 - carried * by) / left;
        return
        [
            .. arms.Select(f => f with { Force = (Vec.Up - Vec.Forward * back) * (f.Force.Z * by) }),
            .. legs.Select(f => f with { Force = Vec.Up * (f.Force.Z * rest) + Vec.Forward * (back * carried * by * f.Force.Z / left) }),
        ];
    }

    /// <summary>
    /// The feet carry all, evenly; the wall pushes as much forward as keeps the body from falling back, and the floor holds against it.
    /// </summary>
    private static IEnumerable<Push> AtWall(Contact wall, ImmutableArray<Contact> feet, Vec centre)
    {
        var under = feet.Average(f => f.At.X);
        var push = (under - centre.X) / wall.At.Z;
        return [new Push(wall, Vec.Forward * push), .. feet.Select(f => new Push(f, (Vec.Up - Vec.Forward * push) * (1.0 / feet.Length)))];
    }

    /// <summary>
    /// Under one flat foot, or under feet side by side, the force stands where the centre of mass does, as far as the sole goes.
    /// </summary>
    private static ImmutableArray<Contact> Settled(ImmutableArray<Contact> contacts, Posture posture, Vec centre)
    {
        if (!Contacts.OnFeet(contacts) || contacts.Length > 1 && Math.Abs(contacts[0].At.X - contacts[1].At.X) > Foot / 2)
        {
            return contacts;
        }

        return
        [
            .. contacts.Select(c =>
            {
                var foot = c.IsOf(1) ? posture.LeftFoot : posture.RightFoot;
                var ahead = Turn.Yaw(foot.Yaw).Of(Vec.Forward);
                var along = Math.Clamp((centre - c.At).Dot(ahead), -(PoseSolver.MidFoot + Heel), Foot - Heel - PoseSolver.MidFoot);
                var under = contacts.Length > 1 && Math.Abs(ahead.X) > 0.3 ? Math.Clamp((centre.X - c.At.X) / ahead.X, -0.07, 0.08) : along;
                return foot.Pitch is > 10 or < -10 ? c : c with { At = c.At + ahead * under };
            }),
        ];
    }

    /// <summary>
    /// No foot pushes inward by more than this share of what it carries. [M] About 17° from upright: flatter, and a sole is felt to slide.
    /// </summary>
    private const double Flattest = 0.3;

    /// <summary>How far aside a line to the centre of mass goes for each length up.</summary>
    private static Vec Inward(Vec at, Vec centre) =>
        centre.Z - at.Z > 0.15 ? ((centre - at) with { Z = 0 }) * (1 / (centre.Z - at.Z)) : new Vec(0, 0, 0);

    private static IEnumerable<(Vec At, double Share)> Above(Skeleton s, Carried? load)
    {
        // What of the trunk lies above the lumbar joint, by length.
        yield return (s[Joint.Head], HeadMass);
        yield return (s[Joint.Lumbar].Towards(s[Joint.Chest], 0.5), TrunkMass * Skeleton.ChestLength / Trunk);
        for (var side = 1; side >= -1; side -= 2)
        {
            yield return (s.Of(Joint.LeftShoulder, side).Towards(s.Of(Joint.LeftElbow, side), UpperArmCentre), UpperArmMass);
            yield return (s.Of(Joint.LeftElbow, side).Towards(s.Of(Joint.LeftWrist, side), ForearmHandCentre), ForearmHandMass);
        }

        if (load is { By: not CarriedBy.Hips })
        {
            foreach (var held in load.At(s))
            {
                yield return held;
            }
        }
    }
}
