using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Halterion.Core.Body;

/// <summary>What lies over what, from back to front.</summary>
public enum Tone
{
    Far,
    Near,
}

/// <summary>Filled outlines of one tone.</summary>
public sealed record DrawnLayer(Tone Tone, string Path);

public sealed record DrawnProp(string Kind, string Stroke);

/// <summary>A body as filled outlines of an SVG, in hundredths of stature, y down.</summary>
/// <param name="Layers">From back to front: far limbs, trunk and head, near leg, near arm.</param>
/// <param name="Props">Kit and support: kind and stroke.</param>
public sealed record DrawnPose(ImmutableArray<DrawnLayer> Layers, ImmutableArray<DrawnProp> Props);

/// <summary>Draws a body: limbs that taper, a soft trunk, wedge feet, hands, a head that faces somewhere.</summary>
internal static class Drawing
{
    // Half thicknesses in fractions of stature. [M] What reads as a body from three metres.
    private const double ThighTop = 0.056;
    private const double Knee = 0.037;
    private const double Ankle = 0.022;
    private const double Sole = 0.013;
    private const double ShoulderJoint = 0.032;
    private const double Elbow = 0.023;
    private const double Wrist = 0.017;
    private const double Palm = 0.022;
    private const double Hips = 0.060;
    private const double Chest = 0.066;
    private const double NeckWidth = 0.026;

    public static DrawnPose Of(Pose pose)
    {
        var layers = ImmutableArray.CreateBuilder<DrawnLayer>();
        void Add(Tone tone, Shapes shapes)
        {
            if (shapes.ToString() is { Length: > 0 } path)
            {
                layers.Add(new DrawnLayer(tone, path));
            }
        }

        if (pose.FromFront)
        {
            Add(Tone.Near, Leg(Leg(new Shapes(), pose.Near), pose.Far));
            Add(Tone.Near, FromTheFront(pose));
            Add(Tone.Near, Arm(Arm(new Shapes(), pose.NearArm), pose.FarArm));
        }
        else
        {
            Add(Tone.Far, pose.FarArm == pose.NearArm ? new Shapes() : Arm(new Shapes(), pose.FarArm));
            Add(Tone.Far, pose.Far == pose.Near ? new Shapes() : Leg(new Shapes(), pose.Far));
            Add(Tone.Near, Trunk(pose));
            Add(Tone.Near, Leg(new Shapes(), pose.Near));
            Add(Tone.Near, Arm(new Shapes(), pose.NearArm));
        }

        return new DrawnPose(layers.ToImmutable(), [.. pose.Props.Select(p => new DrawnProp(p.Kind, Stroke(p)))]);
    }

    private static Shapes Leg(Shapes shapes, Leg leg) => shapes
        .Capsule(leg.Hip, ThighTop, leg.Knee, Knee)
        .Capsule(leg.Knee, Knee, leg.Ankle, Ankle)
        .Capsule(Inward(leg.Heel, leg.Toe, Sole), Sole, Inward(leg.Toe, leg.Heel, Sole), Sole)
        .Polygon(leg.Ankle + (leg.Heel - leg.Toe) * (Ankle / Anthropometry.Foot), leg.Heel, leg.Toe.Towards(leg.Heel, 0.25), leg.Ankle);

    private static Shapes Arm(Shapes shapes, Arm arm)
    {
        var forearm = arm.Hand - arm.Elbow;
        var hand = arm.Hand + forearm * (Palm / Math.Max(forearm.Length, 1e-6));
        return shapes
            .Capsule(arm.Shoulder, ShoulderJoint, arm.Elbow, Elbow)
            .Capsule(arm.Elbow, Elbow, arm.Hand, Wrist)
            .Capsule(arm.Hand, Wrist, hand, Palm);
    }

    private static Shapes Trunk(Pose pose)
    {
        var spine = pose.Shoulder - pose.Hip;
        var up = spine * (1 / Math.Max(spine.Length, 1e-6));
        var ahead = new Point(up.Y, -up.X);
        var neck = pose.Head - pose.Shoulder;
        var face = new Point(neck.Y, -neck.X) * (1 / Math.Max(neck.Length, 1e-6));
        return new Shapes()
            .Capsule(pose.Hip, Hips, pose.Shoulder - up * 0.02 + ahead * 0.008, Chest)
            .Capsule(pose.Shoulder, NeckWidth, pose.Head, NeckWidth)
            .Disc(pose.Head, Anthropometry.HeadRadius)
            .Capsule(pose.Head + face * (Anthropometry.HeadRadius - 0.014), 0.016, pose.Head + face * (Anthropometry.HeadRadius - 0.001), 0.011);
    }

    private static Shapes FromTheFront(Pose pose)
    {
        var (left, right) = (pose.NearArm.Shoulder, pose.FarArm.Shoulder);
        return new Shapes()
            .Capsule(pose.Near.Hip, Hips, pose.Far.Hip, Hips)
            .Capsule(left.Towards(right, 0.12), ShoulderJoint + 0.008, right.Towards(left, 0.12), ShoulderJoint + 0.008)
            .Polygon(left.Towards(right, 0.02), right.Towards(left, 0.02), Outward(pose.Far.Hip, pose.Near.Hip, 0.03), Outward(pose.Near.Hip, pose.Far.Hip, 0.03))
            .Capsule(pose.Shoulder, NeckWidth, pose.Head, NeckWidth)
            .Disc(pose.Head, Anthropometry.HeadRadius);
    }

    private static Point Inward(Point from, Point to, double by) => from + (to - from) * (by / Math.Max((to - from).Length, by));

    private static Point Outward(Point from, Point other, double by) => from - (other - from) * (by / Math.Max((other - from).Length, by));

    private static string Stroke(Prop prop)
    {
        switch (prop.Kind)
        {
            case "band":
                return Line(prop.From, prop.To);
            case "weight" or "ball" or "bar":
                return new Shapes().Disc(prop.From, prop.Kind == "weight" ? 0.038 : prop.Kind == "ball" ? 0.06 : 0.07).ToString();
            case "chair":
                return Line(prop.From with { Y = prop.To.Y + 0.28 }, prop.From) + Line(prop.From with { Y = prop.To.Y }, prop.To, new Point(prop.To.X, 0));
            default:
                return new Shapes().Polygon(prop.From, prop.From with { Y = prop.To.Y }, prop.To, prop.To with { Y = prop.From.Y }).ToString();
        }
    }

    /// <summary>A line without thickness.</summary>
    public static string Line(params ReadOnlySpan<Point> points)
    {
        var path = new StringBuilder();
        for (var i = 0; i < points.Length; i++)
        {
            path.Append(CultureInfo.InvariantCulture, $"{(i == 0 ? 'M' : 'L')}{Shapes.X(points[i])} {Shapes.Y(points[i])}");
        }

        return path.ToString();
    }
}
