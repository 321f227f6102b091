using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Halterion.Core.Body;

/// <summary>One key pose on its piece of floor.</summary>
/// <param name="X">By how much it is moved from where it is drawn, as the ones before it take room.</param>
/// <param name="Floor">Stroke of the floor.</param>
public sealed record Still(double X, double Y, string Floor, ImmutableArray<Layer> Layers);

/// <summary>The feet from above, forward up: pale where they begin, dark where they end.</summary>
public sealed record FootMap(string ViewBox, string Start, string End);

/// <summary>A computed figure: the key poses beside each other, what moves, and the whole in words. Hundredths of stature, y down.</summary>
/// <param name="ViewBox">Of an SVG that shows all of it.</param>
/// <param name="Way">Stroke of the joint that moves most, on the last pose; empty where nothing moves.</param>
/// <param name="Map">Where the stance is the point.</param>
/// <param name="Alt">The poses in words.</param>
public sealed record Figure(string ViewBox, View View, ImmutableArray<Still> Stills, string Way, FootMap? Map, string Alt)
{
    private const double Margin = 4;
    private const double Between = 2;

    /// <summary>From so many of them they stand in a row whatever their shape.</summary>
    private const int Strip = 3;

    /// <param name="motion">The move, its key poses solved.</param>
    /// <param name="felt">What does the work, as in the library: seat, quadriceps, trunk …</param>
    public static Figure Of(Motion motion, BandAt band, ImmutableArray<string> props, string felt, View view, bool map)
    {
        var keys = Enumerable.Range(0, motion.Count).Select(i => Skeleton.Of(motion.Key(i))).ToImmutableArray();
        var fixtures = Fixtures.Of(props, [.. Enumerable.Range(0, motion.Count).Select(motion.Pose)], keys);
        var camera = Camera.Of(view);
        var shown = Enumerable.Range(0, motion.Count).Where(i => !motion.Pose(i).Through).ToArray();
        var moves = Moving(keys[shown[0]], keys[shown[^1]]) is not null || shown.Length > 2;
        if (!moves)
        {
            shown = [shown[^1]];
        }

        var boxes = shown.Select(i => Box.Around(keys[i], fixtures, camera, motion.Load)).ToArray();
        var stacked = shown.Length < Strip && boxes.All(b => b.Width > 1.15 * b.Height) && boxes.Sum(b => b.Width) > 150;
        var stills = ImmutableArray.CreateBuilder<Still>();
        double x = 0, y = 0, width = 0;
        var top = boxes.Max(b => b.Height);
        for (var n = 0; n < shown.Length; n++)
        {
            var (box, last) = (boxes[n], n == shown.Length - 1);
            var layers = Drawing.Of(keys[shown[n]], new Scene(motion.Load, band, fixtures, last ? felt : ""), view);
            stills.Add(new Still(Shapes.Round(x - box.Left), Shapes.Round(y), Ground(keys[shown[n]], camera, view, box), layers));
            width = Math.Max(width, x + box.Width);
            (x, y) = stacked ? (0, y + top + Between) : (x + box.Width + Between, y);
        }

        var height = stacked ? top * shown.Length + Between * (shown.Length - 1) : top;
        var under = boxes.Max(b => b.Below);
        return new Figure(
            string.Create(CultureInfo.InvariantCulture, $"0 {Shapes.Round(under - top)} {Shapes.Round(width)} {Shapes.Round(height)}"),
            view,
            stills.ToImmutable(),
            moves ? Path(motion, keys, shown, camera) : "",
            map ? MapOf(keys[shown[0]], keys[shown[^1]]) : null,
            PoseWords.Of(motion, shown, band));
    }

    private static readonly Joint[] Told = [Joint.Pelvis, Joint.Chest, Joint.LeftKnee, Joint.RightKnee, Joint.LeftAnkle, Joint.RightAnkle, Joint.LeftHand, Joint.RightHand];

    /// <summary>The joint whose way says most; null where nothing moves. A foot or hand has to go half again as far as the hips to be it.</summary>
    private static Joint? Moving(Skeleton a, Skeleton b)
    {
        double Way(Joint j) => (b[j] - a[j]).Length * (j is Joint.Pelvis ? 1.5 : j is Joint.LeftHand or Joint.RightHand ? 0.6 : 1);
        var most = Told.MaxBy(Way);
        return Way(most) > 0.025 ? most : null;
    }

    private static string Path(Motion motion, ImmutableArray<Skeleton> keys, int[] shown, Camera camera)
    {
        if (Moving(keys[shown[0]], keys[shown[^1]]) is not { } joint || shown.Length > Strip || motion.Way != Body.Way.Back)
        {
            return "";
        }

        var points = Enumerable.Range(0, 9).Select(i => camera.On(Skeleton.Of(motion.Out(i / 8.0))[joint])).ToArray();
        return Drawing.Line(points);
    }

    /// <summary>A line under the feet; seen from above its level a tile of floor.</summary>
    private static string Ground(Skeleton s, Camera camera, View view, Box box)
    {
        if (view is View.Side or View.Front)
        {
            return string.Create(CultureInfo.InvariantCulture, $"M{Shapes.Round(box.Left + 1)} 0H{Shapes.Round(box.Left + box.Width - 1)}");
        }

        var low = s.All.Where(v => v.Z < 0.25).DefaultIfEmpty(s[Joint.Pelvis]).ToArray();
        var (x0, x1) = (low.Min(v => v.X) - 0.06, low.Max(v => v.X) + 0.06);
        var (y0, y1) = (low.Min(v => v.Y) - 0.08, low.Max(v => v.Y) + 0.08);
        return Drawing.Line([.. new[] { new Vec(x0, y0, 0), new Vec(x1, y0, 0), new Vec(x1, y1, 0), new Vec(x0, y1, 0) }.Select(camera.On)]) + "Z";
    }

    /// <summary>Room and floor for a body that moves.</summary>
    public static (string ViewBox, string Floor) Stage(ImmutableArray<Skeleton> bodies, ImmutableArray<Fixture> fixtures, Camera camera, View view, Carried? load)
    {
        var boxes = bodies.Select(b => Box.Around(b, fixtures, camera, load)).ToArray();
        var (left, right) = (boxes.Min(b => b.Left), boxes.Max(b => b.Left + b.Width));
        var (below, above) = (boxes.Max(b => b.Below), boxes.Max(b => b.Height - b.Below));
        var whole = new Box(left, right - left, above + below, below);
        return (
            string.Create(CultureInfo.InvariantCulture, $"{Shapes.Round(left)} {Shapes.Round(-above)} {Shapes.Round(right - left)} {Shapes.Round(above + below)}"),
            Ground(bodies[0], camera, view, whole));
    }

    private static FootMap MapOf(Skeleton start, Skeleton end)
    {
        var places = new[] { start, end }.SelectMany(s => new[] { s[Joint.LeftHeel], s[Joint.LeftToe], s[Joint.RightHeel], s[Joint.RightToe] }).ToArray();
        var camera = Camera.Of(View.Above);
        var (left, right) = (places.Min(p => camera.On(p).X), places.Max(p => camera.On(p).X));
        var (low, high) = (places.Min(p => camera.On(p).Y), places.Max(p => camera.On(p).Y));
        return new FootMap(
            string.Create(CultureInfo.InvariantCulture, $"{Shapes.Round(100 * left - 5)} {Shapes.Round(-100 * high - 4)} {Shapes.Round(100 * (right - left) + 10)} {Shapes.Round(100 * (high - low) + 8)}"),
            Drawing.Feet(start),
            Drawing.Feet(end));
    }

    /// <summary>What a still takes on paper.</summary>
    internal readonly record struct Box(double Left, double Width, double Height, double Below)
    {
        public static Box Around(Skeleton s, ImmutableArray<Fixture> fixtures, Camera camera, Carried? load)
        {
            var points = s.All.Select(v => (At: camera.On(v), Room: v.Z < 0.05 ? 0.02 : 0.05)).ToList();
            points.Add((camera.On(s[Joint.Head]), Anthropometry.HeadRadius));
            foreach (var f in fixtures.Where(f => f.Kind != "wall"))
            {
                foreach (var z in (double[])[f.From.Z, f.To.Z + (f.Kind == "chair" ? 0.27 : 0)])
                {
                    points.AddRange([(camera.On(f.From with { Z = z }), 0.01), (camera.On(f.To with { Z = z }), 0.01), (camera.On(new Vec(f.From.X, f.To.Y, z)), 0.01), (camera.On(new Vec(f.To.X, f.From.Y, z)), 0.01)]);
                }
            }

            foreach (var (at, _) in load?.At(s) ?? [])
            {
                var half = s.Chest.Of(Vec.Left) * Drawing.HalfBar(load!.Kind);
                points.AddRange([(camera.On(at - half), 0.08), (camera.On(at + half), 0.08)]);
            }

            var (left, right) = (points.Min(p => p.At.X - p.Room) * 100, points.Max(p => p.At.X + p.Room) * 100);
            var (low, high) = (Math.Min(0, points.Min(p => p.At.Y - p.Room)) * 100, points.Max(p => p.At.Y + p.Room) * 100);
            return new Box(left - Margin / 2, right - left + Margin, high - low + Margin + 2, -low + Margin / 2 + 1);
        }
    }

    /// <summary>The figure as a picture of its own, with its colours in it.</summary>
    public string Svg()
    {
        var text = new StringBuilder($"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"{ViewBox}\" role=\"img\"><title>{System.Security.SecurityElement.Escape(Alt)}</title>");
        foreach (var still in Stills)
        {
            text.Append(CultureInfo.InvariantCulture, $"<g transform=\"translate({still.X} {still.Y})\"><path d=\"{still.Floor}\" fill=\"none\" stroke=\"#b9b4a6\" stroke-width=\"1\"/>");
            foreach (var layer in still.Layers)
            {
                text.Append(CultureInfo.InvariantCulture, $"<path d=\"{layer.Path}\" fill=\"{Colour(layer.Ink)}\" stroke=\"#fff\" stroke-width=\"1.4\" paint-order=\"stroke\"/>");
            }

            if (Way.Length > 0 && ReferenceEquals(still, Stills[^1]))
            {
                text.Append(CultureInfo.InvariantCulture, $"<path d=\"{Way}\" fill=\"none\" stroke=\"#b23a1e\" stroke-width=\"1.2\" stroke-dasharray=\"1.8 2.2\"/>");
            }

            text.Append("</g>");
        }

        return text.Append("</svg>").ToString();
    }

    private static string Colour(Ink ink) => ink switch
    {
        Ink.Far => "#a3b0b5",
        Ink.Near => "#22323a",
        Ink.Felt => "#dfa52e",
        Ink.Kit => "#b0552b",
        Ink.Band => "#2b7fa8",
        Ink.Wall => "#efebe0",
        _ => "#d8d2c0",
    };
}
