using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;

namespace Pantomet.Core.Jobs;

/// <summary>A value that is set; where none stands, nothing is set.</summary>
/// <param name="Value">The value, which may be null.</param>
public sealed record Set<T>(T Value);

/// <summary>A picture and where in the job it is put.</summary>
/// <param name="Index">Its place in the job afterwards, from 0.</param>
/// <param name="Picture">The picture with its decisions.</param>
public sealed record PlacedPicture(int Index, JobPicture Picture);

/// <summary>A slot and where in the job it is put.</summary>
/// <param name="Index">Its place in the job afterwards, from 0.</param>
/// <param name="Slot">The slot.</param>
public sealed record PlacedSlot(int Index, JobSlot Slot);

/// <summary>What leads from one state of a picture's decisions to another: only what differs.</summary>
public sealed record DecisionsPatch
{
    /// <summary>The turn.</summary>
    public Set<Turn>? Turn { get; init; }

    /// <summary>The focus.</summary>
    public Set<FocusPoint?>? Focus { get; init; }

    /// <summary>The keep boxes.</summary>
    public Set<IReadOnlyList<Frame>>? Keep { get; init; }

    /// <summary>Whether the suggestion was turned down.</summary>
    public Set<bool>? SuggestionRejected { get; init; }

    /// <summary>Words for names.</summary>
    public Set<string>? Keywords { get; init; }

    /// <summary>Alternative text.</summary>
    public Set<string>? Alternative { get; init; }

    /// <summary>The picture's own title.</summary>
    public Set<string>? Title { get; init; }

    /// <summary>Whether it is a decorative picture.</summary>
    public Set<bool>? Decorative { get; init; }

    /// <summary>Whether a newer original has another shape.</summary>
    public Set<bool>? OtherShape { get; init; }

    /// <summary>Frames by shape; null takes one away.</summary>
    public IReadOnlyDictionary<string, Frame?>? Framings { get; init; }

    /// <summary>Decisions by slot; null takes one away.</summary>
    public IReadOnlyDictionary<string, CellDecision?>? Cells { get; init; }

    /// <summary>True when nothing differs.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsEmpty => this == new DecisionsPatch();

    /// <summary>What leads from one to the other.</summary>
    public static DecisionsPatch Between(Decisions from, Decisions to)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(to);
        return new()
        {
            Turn = Differing(from.Turn, to.Turn),
            Focus = Differing(from.Focus, to.Focus),
            SuggestionRejected = Differing(from.SuggestionRejected, to.SuggestionRejected),
            Keep = from.Keep.SequenceEqual(to.Keep) ? null : new(to.Keep),
            Keywords = Differing(from.Keywords, to.Keywords),
            Alternative = Differing(from.Alternative, to.Alternative),
            Title = Differing(from.Title, to.Title),
            Decorative = Differing(from.Decorative, to.Decorative),
            OtherShape = Differing(from.OtherShape, to.OtherShape),
            Framings = Keyed.Between(from.Framings, to.Framings, (a, b) => a == b, frame => (Frame?)frame),
            Cells = Keyed.Between(from.Cells, to.Cells, (a, b) => a.Says(b), cell => cell.IsNone ? null : cell),
        };
    }

    /// <summary>The decisions with these differences.</summary>
    public Decisions On(Decisions decisions)
    {
        ArgumentNullException.ThrowIfNull(decisions);
        return decisions with
        {
            Turn = Turn is null ? decisions.Turn : Turn.Value,
            Focus = Focus is null ? decisions.Focus : Focus.Value,
            Keep = Keep is null ? decisions.Keep : Keep.Value,
            SuggestionRejected = SuggestionRejected?.Value ?? decisions.SuggestionRejected,
            Keywords = Keywords?.Value ?? decisions.Keywords,
            Alternative = Alternative?.Value ?? decisions.Alternative,
            Title = Title?.Value ?? decisions.Title,
            Decorative = Decorative?.Value ?? decisions.Decorative,
            OtherShape = OtherShape?.Value ?? decisions.OtherShape,
            Framings = Framings is null
                ? decisions.Framings
                : Keyed.On(decisions.Framings, Framings.Select(pair => (pair.Key, pair.Value))),
            Cells = Cells is null ? decisions.Cells : Keyed.On(decisions.Cells, Cells.Select(pair => (pair.Key, pair.Value))),
        };
    }

    private static Set<T>? Differing<T>(T from, T to) => EqualityComparer<T>.Default.Equals(from, to) ? null : new(to);
}

/// <summary>
/// What leads from one state of a job to another: only what differs. The inverse of a command is the patch that leads back.
/// </summary>
public sealed record JobPatch
{
    /// <summary>The name.</summary>
    public Set<string>? Name { get; init; }

    /// <summary>The prefix.</summary>
    public Set<string>? Prefix { get; init; }

    /// <summary>Whether pictures are counted.</summary>
    public Set<bool>? Numbered { get; init; }

    /// <summary>Patterns by destination; null takes one away.</summary>
    public IReadOnlyDictionary<string, string?>? Patterns { get; init; }

    /// <summary>Pictures that go.</summary>
    public IReadOnlyList<Guid>? PicturesOut { get; init; }

    /// <summary>Pictures that come, with their decisions, in ascending order of their places.</summary>
    public IReadOnlyList<PlacedPicture>? PicturesIn { get; init; }

    /// <summary>Slots that go, by address.</summary>
    public IReadOnlyList<string>? SlotsOut { get; init; }

    /// <summary>Slots that come, in ascending order of their places.</summary>
    public IReadOnlyList<PlacedSlot>? SlotsIn { get; init; }

    /// <summary>Type and quality of slots that stay, by address.</summary>
    public IReadOnlyDictionary<string, Choice?>? Choices { get; init; }

    /// <summary>Decisions about pictures that stay.</summary>
    public IReadOnlyDictionary<Guid, DecisionsPatch>? Decisions { get; init; }

    /// <summary>True when nothing differs.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsEmpty => this == new JobPatch();

    /// <summary>What leads from one to the other. Only objects that are not the very same are looked into.</summary>
    public static JobPatch Between(Job from, Job to)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(to);
        var patch = new JobPatch
        {
            Name = from.Name == to.Name ? null : new(to.Name),
            Prefix = from.Prefix == to.Prefix ? null : new(to.Prefix),
            Numbered = from.Numbered == to.Numbered ? null : new(to.Numbered),
            Patterns = Keyed.Between(from.Patterns, to.Patterns, (a, b) => a == b, pattern => pattern),
        };
        if (!ReferenceEquals(from.Pictures, to.Pictures))
        {
            var before = from.Pictures.ToDictionary(one => one.Id);
            var after = to.Pictures.Select(one => one.Id).ToHashSet();
            var decisions = to
                .Pictures.Where(one =>
                    before.TryGetValue(one.Id, out var known)
                    && !ReferenceEquals(known, one)
                    && !ReferenceEquals(known.Decisions, one.Decisions)
                )
                .Select(one => (one.Id, Patch: DecisionsPatch.Between(before[one.Id].Decisions, one.Decisions)))
                .Where(one => !one.Patch.IsEmpty)
                .ToDictionary(one => one.Id, one => one.Patch);
            patch = patch with
            {
                PicturesOut = NullIfEmpty(from.Pictures.Where(one => !after.Contains(one.Id)).Select(one => one.Id)),
                PicturesIn = NullIfEmpty(
                    to.Pictures.Select((one, index) => new PlacedPicture(index, one)).Where(one => !before.ContainsKey(one.Picture.Id))
                ),
                Decisions = decisions.Count > 0 ? decisions : null,
            };
        }

        if (!ReferenceEquals(from.Slots, to.Slots))
        {
            var before = from.Slots.ToDictionary(one => one.Address);
            var after = to.Slots.Select(one => one.Address).ToHashSet();
            var choices = to
                .Slots.Where(one => before.TryGetValue(one.Address, out var known) && known.Choice != one.Choice)
                .ToDictionary(one => one.Address, one => one.Choice);
            patch = patch with
            {
                SlotsOut = NullIfEmpty(from.Slots.Where(one => !after.Contains(one.Address)).Select(one => one.Address)),
                SlotsIn = NullIfEmpty(
                    to.Slots.Select((one, index) => new PlacedSlot(index, one)).Where(one => !before.ContainsKey(one.Slot.Address))
                ),
                Choices = choices.Count > 0 ? choices : null,
            };
        }

        return patch;
    }

    /// <summary>The job with these differences. What the job no longer has is passed over.</summary>
    public Job On(Job job)
    {
        ArgumentNullException.ThrowIfNull(job);
        return job with
        {
            Name = Name?.Value ?? job.Name,
            Prefix = Prefix?.Value ?? job.Prefix,
            Numbered = Numbered?.Value ?? job.Numbered,
            Patterns = Patterns is null ? job.Patterns : Keyed.On(job.Patterns, Patterns.Select(pair => (pair.Key, pair.Value))),
            Pictures = Placed(
                Decisions is null
                    ? job.Pictures
                    :
                    [
                        .. job.Pictures.Select(one =>
                            Decisions.TryGetValue(one.Id, out var patch) ? one with { Decisions = patch.On(one.Decisions) } : one
                        ),
                    ],
                PicturesOut,
                one => one.Id,
                PicturesIn?.Select(one => (one.Index, one.Picture))
            ),
            Slots = Placed(
                Choices is null
                    ? job.Slots
                    : [.. job.Slots.Select(one => Choices.TryGetValue(one.Address, out var choice) ? one with { Choice = choice } : one)],
                SlotsOut,
                one => one.Address,
                SlotsIn?.Select(one => (one.Index, one.Slot))
            ),
        };
    }

    private static IReadOnlyList<T> Placed<T, TKey>(
        IReadOnlyList<T> all,
        IReadOnlyList<TKey>? gone,
        Func<T, TKey> key,
        IEnumerable<(int Index, T One)>? come
    )
    {
        if (gone is null && come is null)
        {
            return all;
        }

        var dropped = (gone ?? []).ToHashSet();
        var left = all.Where(one => !dropped.Contains(key(one))).ToList();
        var known = left.Select(key).ToHashSet();
        foreach (var (index, one) in come ?? [])
        {
            if (known.Add(key(one)))
            {
                left.Insert(Math.Min(index, left.Count), one);
            }
        }

        return left;
    }

    private static List<T>? NullIfEmpty<T>(IEnumerable<T> all) => all.ToList() is { Count: > 0 } list ? list : null;
}

/// <summary>Differences of dictionaries.</summary>
internal static class Keyed
{
    public static Dictionary<string, TSet?>? Between<T, TSet>(
        IReadOnlyDictionary<string, T> from,
        IReadOnlyDictionary<string, T> to,
        Func<T, T, bool> same,
        Func<T, TSet?> set
    )
    {
        if (ReferenceEquals(from, to))
        {
            return null;
        }

        var differing = new Dictionary<string, TSet?>();
        foreach (var (key, value) in to)
        {
            if (!from.TryGetValue(key, out var known) || !same(known, value))
            {
                differing[key] = set(value);
            }
        }

        foreach (var key in from.Keys.Where(key => !to.ContainsKey(key)))
        {
            differing[key] = default;
        }

        return differing.Count > 0 ? differing : null;
    }

    public static Dictionary<string, T> On<T>(IReadOnlyDictionary<string, T> all, IEnumerable<(string Key, T? Value)> changes)
        where T : struct
    {
        var changed = new Dictionary<string, T>(all);
        foreach (var (key, value) in changes)
        {
            if (value is { } set)
            {
                changed[key] = set;
            }
            else
            {
                changed.Remove(key);
            }
        }

        return changed;
    }

    public static Dictionary<string, T> On<T>(IReadOnlyDictionary<string, T> all, IEnumerable<(string Key, T? Value)> changes)
        where T : class
    {
        var changed = new Dictionary<string, T>(all);
        foreach (var (key, value) in changes)
        {
            if (value is not null)
            {
                changed[key] = value;
            }
            else
            {
                changed.Remove(key);
            }
        }

        return changed;
    }
}
