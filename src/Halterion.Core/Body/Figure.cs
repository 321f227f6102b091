using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Halterion.Core.Body;

/// <summary>One key pose on its piece of floor.</summary>
/// <param name="X">By how much it is moved from where it is drawn, as the ones before it take room.</param>
/// <param name="Floor">Stroke of the floor.</param>
/// <param name="Left">Where its own drawing begins, before it is moved.</param>
/// <param name="Right">Where it ends.</param>
public sealed record Still(double X, double Y, string Floor, ImmutableArray<Layer> Layers, double Left, double Right);

/// <summary>A word in a drawing.</summary>
public sealed record Label(double X, double Y, string Text);

/// <summary>The feet from above, forward up: pale where they begin (empty where they stay), dark where they end; which is which.</summary>
public sealed record FootMap(string ViewBox, string Start, string End, ImmutableArray<Label> Labels);

/// <summary>Where the part that moves most goes, beside it: a stroke and its head, on the still at that index.</summary>
public sealed record Arrow(string Line, string Head, int Still);

/// <summary>How a figure is looked at.</summary>
/// <param name="Mirrored">The other side works: the whole is seen as in a mirror.</param>
/// <param name="Map">The stance is the point.</param>
/// <param name="Arrow">The joint whose way is shown, where it is not the one that goes furthest.</param>
public sealed record Shown(View View, bool Mirrored = false, bool Map = false, Joint? Arrow = null);

/// <summary>
/// A computed figure: the key poses beside each other, what moves, and the whole in words. Hundredths of stature, y down.
/// </summary>
/// <param name="ViewBox">Of an SVG that shows all of it.</param>
/// <param name="Arrow">Null where nothing moves.</param>
/// <param name="Map">Where the stance is the point.</param>
/// <param name="Alt">The poses in words.</param>
public sealed record Figure(string ViewBox, View View, ImmutableArray<Still> Stills, Arrow? Arrow, FootMap? Map, string Alt)
{
    private const double Margin = 4;

    /// <summary>Whoever goes so far to the left of the picture has its stills from right to left.</summary>
    private const double Travels = 0.1;

    /// <param name="motion">The move, its key poses solved.</param>
    /// <param name="felt">What does the work, as in the library: seat, quadriceps, trunk …</param>
    public static Figure Of(Motion motion, BandAt band, ImmutableArray<string> props, string felt, Shown seen)
    {
        var (view, mirrored, map, arrow) = seen;
        var keys = Enumerable.Range(0, motion.Count).Select(i => Skeleton.Of(motion.Key(i))).ToImmutableArray();
        var fixtures = Fixtures.Of(props, [.. Enumerable.Range(0, motion.Count).Select(motion.Pose)], keys, band);
        var camera = Camera.Of(view, mirrored);
        var shown = Enumerable.Range(0, motion.Count).Where(i => !motion.Pose(i).Through && !motion.Pose(i).Unseen).ToArray();
        var moves = Arrows.Moving(keys[shown[0]], keys[shown[^1]]) is not null || shown.Length > 2;
        var way = moves ? Arrows.Of(motion, keys, shown, camera, arrow) : null;
        if (!moves || way is { Pulses: true })
        {
            shown = [shown[^1]];
        }

        var standing = shown.Select(i => fixtures.Select(f => f.Beside(keys[i])).ToImmutableArray()).ToArray();
        var boxes = shown
            .Select((i, n) => Box.Around(keys[i], standing[n], camera, motion.Load, way?.Still == n ? way.Points : []))
            .ToArray();
        var forward = camera.On(motion.Centre(motion.Count - 1)).X - camera.On(motion.Centre(0)).X;
        var layout = Layout.Of(boxes, backwards: motion.Way == Body.Way.On && forward < -Travels);
        var layers = shown.Select((i, n) =>
        {
            var scene = new Scene(motion.Load, band, standing[n], n == shown.Length - 1 ? felt : "", Fixtures.Slide(props));
            return Drawing.Of(keys[i], scene, view, camera);
        });
        return new Figure(
            ViewBoxOf(0, -layout.Above, layout.Width, layout.Height),
            view,
            [
                .. layers.Select((drawn, n) => new Still(
                    Shapes.Round(layout.Places[n].X),
                    Shapes.Round(layout.Places[n].Y),
                    Ground(keys[shown[n]], camera, view, boxes[n]),
                    drawn,
                    Shapes.Round(boxes[n].Left),
                    Shapes.Round(boxes[n].Left + boxes[n].Width))),
            ],
            way?.Drawn,
            map ? MapOf(keys[shown[0]], keys[shown[^1]], mirrored) : null,
            mirrored ? PoseWords.Mirrored(PoseWords.Of(motion, shown, band)) : PoseWords.Of(motion, shown, band));
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
        return Drawing.Line(
            [.. new[] { new Vec(x0, y0, 0), new Vec(x1, y0, 0), new Vec(x1, y1, 0), new Vec(x0, y1, 0) }.Select(camera.On)]) + "Z";
    }

    /// <summary>Room and floor for a body that moves.</summary>
    public static (string ViewBox, string Floor) Stage(
        ImmutableArray<Skeleton> bodies, ImmutableArray<Fixture> fixtures, Camera camera, View view, Carried? load)
    {
        var boxes = bodies.Select(b => Box.Around(b, fixtures, camera, load, [])).ToArray();
        var (left, right) = (boxes.Min(b => b.Left), boxes.Max(b => b.Left + b.Width));
        var (below, above) = (boxes.Max(b => b.Below), boxes.Max(b => b.Above));
        var whole = new Box(left, right - left, above, below);
        return (
            ViewBoxOf(left, -above, right - left, above + below),
            Ground(bodies[0], camera, view, whole));
    }

    /// <summary>Under a foot, outside the map's feet.</summary>
    private const double LabelBelow = 9;
    private const double BelowLabel = 3;
    private const double AboveToes = 5;

    private static string ViewBoxOf(double left, double top, double width, double height) =>
        string.Create(CultureInfo.InvariantCulture, $"{Shapes.Round(left)} {Shapes.Round(top)} {Shapes.Round(width)} "
            + $"{Shapes.Round(height)}");

    private static FootMap MapOf(Skeleton start, Skeleton end, bool mirrored)
    {
        var places = new[] { start, end }.SelectMany(
            s => new[] { s[Joint.LeftHeel], s[Joint.LeftToe], s[Joint.RightHeel], s[Joint.RightToe] }).ToArray();
        var camera = Camera.Of(View.Above, mirrored);
        var (left, right) = (100 * places.Min(p => camera.On(p).X) - 7, 100 * places.Max(p => camera.On(p).X) + 7);
        var (low, high) = (100 * places.Min(p => camera.On(p).Y), 100 * places.Max(p => camera.On(p).Y));
        Label Under(int side)
        {
            var heel = camera.On(end.Of(Joint.LeftHeel, side));
            return new Label(Shapes.X(heel), Shapes.Round(Shapes.Y(heel) + LabelBelow), side > 0 != mirrored ? "L" : "R");
        }

        bool Stays(int side) => (start.Of(Joint.LeftToe, side) - end.Of(Joint.LeftToe, side)).Length < 0.02;
        return new FootMap(
            ViewBoxOf(left, -high - AboveToes, right - left, high - low + AboveToes + LabelBelow + BelowLabel),
            Stays(1) && Stays(-1) ? "" : Drawing.Feet(start, camera),
            Drawing.Feet(end, camera),
            [Under(1), Under(-1)]);
    }

    /// <summary>What a still takes on paper, in hundredths of stature from where its floor is.</summary>
    internal readonly record struct Box(double Left, double Width, double Above, double Below)
    {
        public double Height => Above + Below;

        public static Box Around(Skeleton s, ImmutableArray<Fixture> fixtures, Camera camera, Carried? load, IReadOnlyList<Point> drawn)
        {
            var points = s.All.Select(v => (At: camera.On(v), Room: v.Z < 0.05 ? 0.02 : 0.05)).ToList();
            points.Add((camera.On(s[Joint.Head]), Anthropometry.HeadRadius));
            points.AddRange(drawn.Select(p => (p, 0.012)));
            foreach (var f in fixtures)
            {
                foreach (var z in (double[])[f.From.Z, f.To.Z + (f.Kind == "chair" ? 0.27 : f.Kind == "machine" ? 0.4 : 0)])
                {
                    points.AddRange(
                        [
                            (camera.On(f.From with { Z = z }), 0.01),
                            (camera.On(f.To with { Z = z }), 0.01),
                            (camera.On(new Vec(f.From.X, f.To.Y, z)), 0.01),
                            (camera.On(new Vec(f.To.X, f.From.Y, z)), 0.01)]);
                }
            }

            foreach (var (at, _) in load?.At(s) ?? [])
            {
                var half = s.Chest.Of(Vec.Left) * Drawing.HalfBar(load!.Kind);
                points.AddRange([(camera.On(at - half), 0.08), (camera.On(at + half), 0.08)]);
            }

            var (left, right) = (points.Min(p => p.At.X - p.Room) * 100, points.Max(p => p.At.X + p.Room) * 100);
            var (low, high) = (Math.Min(0, points.Min(p => p.At.Y - p.Room)) * 100, points.Max(p => p.At.Y + p.Room) * 100);
            return new Box(left - Margin / 2, right - left + Margin, high + Margin / 2 + 1, -low + Margin / 2 + 1);
        }
    }

    /// <summary>The figure as a picture of its own, with its colours in it.</summary>
    public string Svg()
    {
        var text = new StringBuilder($"<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"{ViewBox}\" "
            + $"role=\"img\"><title>{System.Security.SecurityElement.Escape(Alt)}</title>");
        foreach (var (still, n) in Stills.Select((s, n) => (s, n)))
        {
            text.Append(CultureInfo.InvariantCulture, $"<g transform=\"translate({still.X} {still.Y})\"><path d=\"{still.Floor}\" "
                + $"fill=\"none\" stroke=\"#b9b4a6\" stroke-width=\"1\"/>");
            foreach (var layer in still.Layers)
            {
                var edge = layer.Ink is Ink.Felt or Ink.Wall ? "" : " stroke=\"#fff\" stroke-width=\"1.4\" paint-order=\"stroke\"";
                text.Append($"<path d=\"{layer.Path}\" fill=\"{Colour(layer.Ink)}\"{edge}/>");
            }

            if (Arrow?.Still == n)
            {
                const string stroke = "stroke-width=\"1.4\" stroke-linecap=\"round\" stroke-linejoin=\"round\"";
                text.Append($"<path d=\"{Arrow.Line}\" fill=\"none\" stroke=\"{ArrowColour}\" {stroke}/>");
                text.Append($"<path d=\"{Arrow.Head}\" fill=\"{ArrowColour}\"/>");
            }

            text.Append("</g>");
        }

        return text.Append("</svg>").ToString();
    }

    private const string ArrowColour = "#b23a1e";

    private static string Colour(Ink ink) => ink switch
    {
        Ink.Far => "#a3b0b5",
        Ink.Near => "#22323a",
        Ink.Felt => "#dfa52e",
        Ink.Kit => "#b0552b",
        Ink.Band => "#2b7fa8",
        Ink.Wall => "#e4dfd0",
        Ink.Fixture => "#d8d2c0",
    };
}
