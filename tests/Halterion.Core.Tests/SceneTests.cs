using CsCheck;
using Halterion.Core.Leading;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>
/// What every screen shows is the part, side and round that is under way (leading.md, "Screens", one truth; our own rule): the names and
/// doses are read here from the class file, not from what made the screens.
/// </summary>
public class SceneTests
{
    private static (ClassPlan Plan, Timeline Timeline, LeadScript Script) Of(string text)
    {
        var (plan, timeline) = (Plan(text), Timeline(text));
        return (plan, timeline, LeadScript.Of(plan, timeline, new Preferences()));
    }

    private static StationCard Card(LeadScript script, Scene scene) => script.Cards[Assert.Single(scene.Cards)];

    [Fact]
    public void Each_stretch_of_work_shows_its_part_on_its_side_at_its_tempo() => RandomClasses.Text.Sample(text =>
    {
        var (plan, timeline, script) = Of(text);
        for (var i = 0; i < timeline.Spans.Length; i++)
        {
            var (span, scene) = (timeline.Spans[i], script.Scenes[i]);
            if (span is not { Kind: SpanKind.Work, Station: { } s, Part: { } p })
            {
                continue;
            }

            var station = plan.Blocks[span.Block].Stations[s];
            var part = station.Dose[p];
            var card = Card(script, scene);
            Assert.Equal((station.Id, station.Main.Id, p + 1), (card.Id!.Value, card.Option!.Value, card.Part));
            Assert.Equal(span.Side == Side.Both ? station.OnlySide : span.Side, card.Side);
            Assert.False(scene.Ahead);
            Assert.Equal((scene.Headline, scene.Headline), (scene.Title, card.Name));
            var move = plan.Moves.Find(part.Move)!;
            Assert.StartsWith(part.Move == station.Main.Move ? station.Name : move.Name, scene.Headline, StringComparison.Ordinal);
            Assert.Equal(move.Cues is [var cue, ..] ? cue : "", card.Cue);
            if (part.Kind == PartKind.Reps)
            {
                Assert.Equal((span.Amount, part.RepSeconds), (scene.Reps, scene.RepSeconds));
            }
        }
    }, iter: 200);

    [Fact]
    public void Where_nothing_is_worked_what_comes_next_is_shown() => RandomClasses.Text.Sample(text =>
    {
        var (plan, timeline, script) = Of(text);
        for (var i = 0; i < timeline.Spans.Length; i++)
        {
            var (span, scene) = (timeline.Spans[i], script.Scenes[i]);
            var isRecovery = span is { Kind: SpanKind.Rest, Gap: not null } && !plan.Blocks[span.Block].Recovery.IsEmpty;
            var next = timeline.Spans.Skip(i).Select((s, j) => (s, At: i + j))
                .FirstOrDefault(x => x.s.Kind is SpanKind.Work or SpanKind.Talk);
            if (span.Kind is SpanKind.Work or SpanKind.Talk || isRecovery || next.s is null)
            {
                Assert.False(scene.Ahead);
                continue;
            }

            var shown = script.Scenes[next.At];
            Assert.True(scene.Ahead);
            Assert.Equal(shown.Headline, scene.Title);
            Assert.Equal(shown.Cards, scene.Cards);
            Assert.Equal((shown.Target, shown.SideWords, shown.Hand, shown.Load), (scene.Target, scene.SideWords, scene.Hand, scene.Load));
            Assert.Null(scene.Reps);
        }
    }, iter: 200);

    private const string Goblet =
        """{"tier":"main","move":"split-squat","load":{"implement":"dumbbell","count":1,"kg":6,"position":"POS","side":"WHICH"}}""";

    /// <summary>The hand by the load's own side, whatever the position; from plan-language.md, "load".</summary>
    [Theory]
    [InlineData("sides", "same", "weight in your left hand", "weight left")]
    [InlineData("sides", "opposite", "weight in your right hand", "weight right")]
    [InlineData("low", "opposite", "weight in your right hand", "weight right")]
    [InlineData("rack", "same", "at your left shoulder", "left shoulder")]
    [InlineData("goblet", "same", "", "")]
    public void The_hand_stands_beside_the_side(string position, string which, string hand, string brief)
    {
        var option = Goblet.Replace("POS", position, StringComparison.Ordinal).Replace("WHICH", which, StringComparison.Ordinal);
        var (_, _, script) = Of(With(Block(
            "", $$"""{"sides":"each","dose":[{"kind":"reps","amount":6,"tempo":"2-0-2-0"}],"options":[{{option}}]}""")));
        // The lead-in shows what comes next, and then it comes.
        Assert.All(script.Scenes.Take(2), s => Assert.Equal(("left foot in front", hand, brief), (s.SideWords, s.Hand, s.HandBrief)));
        Assert.Equal("right foot in front", script.Scenes[2].SideWords);
    }

    [Fact]
    public void A_drop_set_says_its_load_a_label_follows_its_move_and_two_who_share_are_told_who_works()
    {
        var (_, _, drop) = Of(With(Block(
            "",
            """
            {"dose":[{"kind":"reps","amount":8,"tempo":"2-0-2-0","loadKg":50},{"kind":"reps","amount":6,"tempo":"1-0-1-0","loadKg":42.5,"label":"quicker"}],
             "options":[{"tier":"main","move":"goblet-squat","load":{"implement":"kettlebell","count":1,"kg":50}}]}
            """)));
        var work = drop.Scenes.Where(s => s.Kind == SpanKind.Work).ToArray();
        Assert.Equal(["50 kg", "42.5 kg"], work.Select(s => s.Load));
        Assert.Equal(drop.Scenes[1].Headline + ", quicker", work[1].Headline);
        Assert.Equal([4m, 2m], work.Select(s => s.RepSeconds!.Value));

        var (_, _, turns) = Of(With(Block(
            "",
            """{"sharing":"turns","waiting":[{"tier":"main","move":"march"}],"dose":[{"kind":"time","amount":20}],"options":[{"tier":"main","move":"squat"}]}""")));
        Assert.Equal(
            ["First of you works, the other: march", "Second of you works, the other: march"],
            turns.Scenes.Where(s => s.Kind == SpanKind.Work).Select(s => s.Others));
    }

    [Fact]
    public void A_film_is_of_the_part_the_side_and_the_place_from_where_it_is_shown()
    {
        var text = With(Block(
            "",
            """
            {"sides":"each","view":"front","dose":[{"kind":"reps","amount":4,"tempo":"3-1-1-0"},{"kind":"reps","amount":4,"tempo":"1-0-1-0","move":"reverse-lunge"}],
             "options":[{"tier":"main","move":"split-squat"}]}
            """)
            + """,{"name":"Show","phase":"talk","format":"talk","show":[{"station":"b1s1","seconds":20}],"seconds":20}""");
        var (plan, timeline, script) = Of(text);
        foreach (var scene in script.Scenes.Where(s => s.Kind == SpanKind.Work))
        {
            var card = Card(script, scene);
            var film = ForEveryone.FilmOf(plan, card.Option!.Value, card.Part, card.Side, card.View)!;
            Assert.Equal(1, film.Reps);
            // A step takes its time: what cannot be done so fast is shown faster than it is.
            Assert.True(film.Film.Seconds >= (double)scene.RepSeconds!.Value - 1e-6, "The film is quicker than the reps.");
            Assert.True(card.Part == 2 || Math.Abs(film.Film.Seconds - 5) < 1e-6, "The film has another tempo than the part.");
        }

        string Frame(PlaceId option, int? part, Side side, Viewpoint? from = null) =>
            ForEveryone.FilmOf(plan, option, part, side, from)!.Film.Frames[0][0].Path;
        var main = plan.Blocks[0].Stations[0].Main.Id;
        Assert.Equal(4, new[] { Frame(main, 1, Side.Left), Frame(main, 1, Side.Right), Frame(main, 2, Side.Left), Frame(main, 1,
            Side.Left, Viewpoint.Front) }
            .Distinct().Count());
        Assert.Equal(2, ForEveryone.FilmOf(plan, main, 2, Side.Alternate)!.Reps);
        Assert.Equal(Viewpoint.Front, Card(script, script.Scenes[^1]).View);
        Assert.StartsWith("Demo: ", script.Scenes[^1].Headline, StringComparison.Ordinal);
        Assert.StartsWith("Watch: ", ForEveryone.Script(script, plan).Scenes[^1].Headline, StringComparison.Ordinal);
        Assert.Equal(timeline.Spans.Length, script.Scenes.Length);
    }

    /// <summary>At one's own pace every station is shown with its dose; in a rotation they stand round the room.</summary>
    [Fact]
    public void Where_people_are_everywhere_all_stations_are_shown()
    {
        string[] two = [Station("""{"kind":"reps","amount":12,"tempo":"1-0-1-0"}"""), Station("""{"kind":"hold","amount":20}""")];
        var (_, _, own) = Of(With(Block(""" "order":"ownPace","seconds":300,"rounds":1 """, two)));
        var at = own.Scenes.First(s => s.Kind == SpanKind.Work);
        Assert.Equal(["12 reps", "20 s hold"], at.Cards.Select(c => own.Cards[c].Target));
        Assert.False(at.TurnsRound);
        var (_, _, round) = Of(With(Block(""" "format":"rotation","windowSeconds":60 """, two)));
        Assert.True(round.Scenes.First(s => s.Kind == SpanKind.Work).TurnsRound);
    }

    /// <summary>To the nearest half minute, under a minute to ten seconds (leading.md, "Calls", 7).</summary>
    [Theory]
    [InlineData(4, "10 seconds left")]
    [InlineData(44, "40 seconds left")]
    [InlineData(45, "50 seconds left")]
    [InlineData(60, "1 minute left")]
    [InlineData(80, "A minute and a half left")]
    [InlineData(104, "A minute and a half left")]
    [InlineData(105, "2 minutes left")]
    [InlineData(449, "7 and a half minutes left")]
    public void What_is_left_is_said_as_people_say_it(int seconds, string words)
    {
        Assert.Equal(words, Leading.Calling.TimeLeft.Of(seconds));
        Assert.Equal(words, Leading.Calling.TimeLeft.UpTo(new Seconds(600)).First(l => seconds < l.Under).Words);
    }
}
