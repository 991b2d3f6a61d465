using System.Collections.Concurrent;
using System.Diagnostics;
using System.Security.Cryptography;
using Pantomet.Application.Engine;
using Pantomet.Core.Facts;
using Pantomet.Core.Framing;
using Pantomet.Core.Geometry;
using Pantomet.Core.Jobs;
using Pantomet.Core.Marks;
using Pantomet.Core.Naming;
using Pantomet.Core.Planning;
using Pantomet.Core.Recipes;
using Pantomet.Core.Rules;
using Pantomet.Core.Texts;
using Pantomet.Core.Verdicts;
using Pantomet.Imaging.Hosting;
using Pantomet.Imaging.Making;
using Pantomet.Imaging.Reading;
using Pantomet.Platform;

namespace Pantomet.Batch.Sites;

/// <summary>One file that a page wants, and what became of it.</summary>
internal sealed record SiteFile(VariantPlan Plan, KnownFile File);

/// <summary>One picture of a site with what was made of it, by slot; or why it cannot be read.</summary>
internal sealed record SitePicture(string Path, PictureFacts? Facts, string? Refusal)
{
    public Dictionary<Slot, IReadOnlyList<SiteFile>> Files { get; } = new(ReferenceEqualityComparer.Instance);

    public Dictionary<Slot, KnownPlaceholder> Placeholders { get; } = new(ReferenceEqualityComparer.Instance);
}

/// <summary>Makes the files that the pages of a site want; what an earlier run made by the same recipe stands.</summary>
/// <param name="site">The site.</param>
/// <param name="output">The folder for the files.</param>
/// <param name="state">What an earlier run left.</param>
/// <param name="marks">What a person said about the pictures.</param>
/// <param name="jobs">How many pictures are worked on at once.</param>
/// <param name="save">Keeps what is known so far: a run that is stopped need not be done again from its start.</param>
internal sealed class SitePictures(
    SiteFolder site,
    string output,
    SiteState state,
    IReadOnlyDictionary<string, PictureMarks> marks,
    int jobs,
    Action<SiteState> save
)
{
    private static readonly TimeSpan SaveEvery = TimeSpan.FromSeconds(3);

    // Written by several pictures at once.
    private readonly ConcurrentDictionary<string, KnownPicture> _pictures = new(state.Pictures);
    private readonly ConcurrentDictionary<string, KnownFile> _files = new(state.Files);
    private readonly ConcurrentDictionary<string, byte> _used = new();
    private readonly ConcurrentDictionary<string, byte> _seen = new();
    private readonly ConcurrentDictionary<Slot, string> _rules = new(ReferenceEqualityComparer.Instance);
    private readonly Stopwatch _saved = Stopwatch.StartNew();
    private int _made;
    private int _savedMade;

    /// <summary>How many files were made in this run.</summary>
    public int Made => _made;

    /// <summary>What is known so far.</summary>
    public SiteState Known => state with { Pictures = _pictures.ToDictionary(), Files = _files.ToDictionary() };

    /// <summary>What is known once all is made. What no page has wanted for so long is left out.</summary>
    /// <param name="now">The time, UTC.</param>
    /// <param name="keep">For how long it is kept.</param>
    public SiteState After(DateTime now, TimeSpan keep)
    {
        DateTime? Since(bool used, DateTime? before) => used ? null : before ?? now;
        bool Stays(DateTime? unused) => unused is null || now - unused <= keep;
        return new()
        {
            Pictures = _pictures
                .ToDictionary(pair => pair.Key, pair => pair.Value with { Unused = Since(_seen.ContainsKey(pair.Key), pair.Value.Unused) })
                .Where(pair => Stays(pair.Value.Unused))
                .ToDictionary(),
            Files = _files
                .ToDictionary(pair => pair.Key, pair => pair.Value with { Unused = Since(_used.ContainsKey(pair.Key), pair.Value.Unused) })
                .Where(pair => Stays(pair.Value.Unused))
                .ToDictionary(),
        };
    }

    public PictureMarks MarksOf(string path) =>
        marks.GetValueOrDefault(path) ?? marks.GetValueOrDefault(Path.GetFileName(path)) ?? PictureMarks.None;

    /// <summary>Makes the files of every picture for its slots.</summary>
    /// <param name="wanted">The slots by path of the picture, each with its destination.</param>
    /// <param name="cancel">Stops between encodes.</param>
    public async Task<IReadOnlyDictionary<string, SitePicture>> MakeAsync(
        IReadOnlyDictionary<string, List<(string Destination, Slot Slot)>> wanted,
        CancellationToken cancel
    )
    {
        var room = new WorkRoom(jobs);
        await using var processes = new ImagingProcessPool(new() { Data = "", Workers = jobs });
        var made = new ConcurrentDictionary<string, SitePicture>();
        try
        {
            await Parallel.ForEachAsync(
                wanted,
                new ParallelOptions { MaxDegreeOfParallelism = jobs, CancellationToken = cancel },
                async (pair, stop) =>
                {
                    made[pair.Key] = await PictureAsync(pair.Key, pair.Value, room, processes, stop);
                    SaveNowAndThen();
                }
            );
        }
        catch (OperationCanceledException)
        {
            Save();
            throw;
        }

        return made;
    }

    private void SaveNowAndThen()
    {
        lock (_saved)
        {
            if (_saved.Elapsed > SaveEvery && _made > _savedMade)
            {
                Save();
            }
        }
    }

    private void Save()
    {
        lock (_saved)
        {
            _savedMade = _made;
            save(Known);
            _saved.Restart();
        }
    }

    private async Task<SitePicture> PictureAsync(
        string path,
        List<(string Destination, Slot Slot)> places,
        WorkRoom room,
        ImagingProcessPool processes,
        CancellationToken cancel
    )
    {
        _seen[path] = 1;
        var mark = MarksOf(path);
        RegularFile file;
        try
        {
            file = site.Open(path);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return new(path, null, fault is NotRegularException ? fault.Message : PageTexts.TheFileCannotBeRead);
        }

        using (file)
        {
            return await PictureAsync(path, file, places, mark, room, processes, cancel);
        }
    }

    private async Task<SitePicture> PictureAsync(
        string path,
        RegularFile file,
        List<(string Destination, Slot Slot)> places,
        PictureMarks mark,
        WorkRoom room,
        ImagingProcessPool processes,
        CancellationToken cancel
    )
    {
        var hash = HashOf(path, file);

        // What is known of the very content is enough to plan by, unless a frame wants a subject that was not sought.
        if (
            _pictures.TryGetValue(path, out var known)
            && known.Hash == hash
            && (known.Facts.SubjectSought || !NeedsSubject(known.Facts, places, mark))
        )
        {
            _pictures[path] = known with { Bytes = file.Facts.Bytes, Changed = file.Facts.Changed };
            var there = new SitePicture(path, known.Facts, null);
            var open = places.Where(place => !Found(there, place, known, mark)).ToList();
            return open.Count == 0 ? there : await MakeAsync(there, file, hash, open, mark, room, processes, cancel);
        }

        return await MakeAsync(new(path, null, null), file, hash, places, mark, room, processes, cancel);
    }

    private async Task<SitePicture> MakeAsync(
        SitePicture picture,
        RegularFile file,
        string hash,
        List<(string Destination, Slot Slot)> places,
        PictureMarks mark,
        WorkRoom room,
        ImagingProcessPool processes,
        CancellationToken cancel
    )
    {
        if (PictureReader.IsDrawing(file.Path) && (await processes.RunAsync(new ReadRequest(file.Path), cancel)).Refusal is { } refusal)
        {
            return new(picture.Path, null, refusal);
        }

        var made = await PictureMaker.MakeAsync(
            file.Path,
            mark.Keep,
            mark.Focus,
            [.. places.Select(place => new Wanted(place.Slot.For(mark.Title), mark.FramingFor(place.Destination, place.Slot.Key)))],
            room,
            cancel
        );
        if (made.Facts is null)
        {
            return new(picture.Path, null, made.Refusal);
        }

        // Whatever is left to make may want no subject; what was known of the same content stays known.
        var facts = picture.Facts ?? made.Facts;
        _pictures[picture.Path] = new(file.Facts.Bytes, file.Facts.Changed, hash, facts);
        var done = new SitePicture(picture.Path, facts, null);
        foreach (var (slot, files) in picture.Files)
        {
            done.Files[slot] = files;
        }

        foreach (var (slot, placeholder) in picture.Placeholders)
        {
            done.Placeholders[slot] = placeholder;
        }

        for (var i = 0; i < places.Count; i++)
        {
            Keep(done, places[i], hash, mark, made.Made[i]);
        }

        return done;
    }

    private void Keep(
        SitePicture picture,
        (string Destination, Slot Slot) place,
        string hash,
        PictureMarks mark,
        IReadOnlyList<MadeVariant> made
    )
    {
        var slot = place.Slot;
        var files = new List<SiteFile>();
        foreach (var plan in PlansOf(picture.Facts!, place, mark))
        {
            var mine = made.Where(one => one.Plan.Descriptor == plan.Descriptor).ToList();
            foreach (var (request, one) in FileRequest.AllOf(plan, slot).Zip(mine))
            {
                var key = KeyOf(picture.Path, mark, hash, slot, request);
                var kept = FileOf(picture.Path, slot, mark, one);
                if (kept.Name is not null && !picture.Placeholders.ContainsKey(slot))
                {
                    var placeholder = Placeholder.Of(one.File!);
                    picture.Placeholders[slot] = new(placeholder.Data, placeholder.Edge);
                    kept = kept with { Placeholder = picture.Placeholders[slot] };
                }

                _files[key] = kept;
                _used[key] = 1;
                files.Add(new(one.Plan, kept));
            }
        }

        picture.Files[slot] = files;
    }

    private KnownFile FileOf(string path, Slot slot, PictureMarks mark, MadeVariant made)
    {
        var delivered = made.File is not null && made.Verdict is Verdict.Meets or Verdict.Concedes;
        var hash = delivered ? Convert.ToHexStringLower(SHA256.HashData(made.File!)) : null;
        return new()
        {
            Name = delivered ? Write(path, slot, mark, made, hash!) : null,
            Hash = hash,
            Size = made.Size,
            Format = delivered ? made.Format : null,
            Bytes = delivered ? made.File!.LongLength : 0,
            Quality = made.Quality,
            Likeness = made.Likeness?.Score,
            Worst = made.Likeness?.WorstTile,
            Encodes = made.Encodes,
            Verdict = made.Verdict,
            Reasons = made.Reasons,
            Dressed = made.Dressed,
        };
    }

    private static IReadOnlyList<VariantPlan> PlansOf(PictureFacts facts, (string Destination, Slot Slot) place, PictureMarks mark) =>
        VariantPlanner.PlanAll(
            facts.Size,
            place.Slot,
            mark.FramingFor(place.Destination, place.Slot.Key),
            Subject.Of(mark.Keep, mark.Focus, facts.Suggestion)
        );

    // Every file of a slot is known, and lies where it was put.
    private bool Found(SitePicture picture, (string Destination, Slot Slot) place, KnownPicture known, PictureMarks mark)
    {
        var slot = place.Slot;
        var files = new List<SiteFile>();
        var keys = new List<string>();
        foreach (var plan in PlansOf(known.Facts, place, mark))
        {
            // What is not made is not made in one type as in another.
            foreach (var request in FileRequest.AllOf(plan, slot).Take(plan.IsMade ? int.MaxValue : 1))
            {
                var key = KeyOf(picture.Path, mark, known.Hash, slot, request);
                if (!_files.TryGetValue(key, out var file) || !IsThere(file, picture.Path, slot, plan, mark))
                {
                    return false;
                }

                keys.Add(key);
                files.Add(new(plan.Size == file.Size ? plan : plan.At(file.Size), file));
            }
        }

        keys.ForEach(key => _used[key] = 1);
        picture.Files[slot] = files;
        if (files.FirstOrDefault(one => one.File.Placeholder is not null)?.File.Placeholder is { } placeholder)
        {
            picture.Placeholders[slot] = placeholder;
        }

        return true;
    }

    private bool IsThere(KnownFile file, string path, Slot slot, VariantPlan plan, PictureMarks mark) =>
        file.Name is null
        || (
            new FileInfo(Path.Combine(output, file.Name)) is { Exists: true } there
            && there.Length == file.Bytes
            && Path.GetFileNameWithoutExtension(file.Name) == Stem(path, slot, plan.Descriptor, file.Size, mark, file.Hash!)
        );

    private static bool NeedsSubject(PictureFacts facts, List<(string Destination, Slot Slot)> places, PictureMarks mark) =>
        mark.Keep.Count == 0
        && mark.Focus is null
        && places.Any(place =>
            mark.FramingFor(place.Destination, place.Slot.Key) is null && VariantPlanner.NeedsSubject(facts.Size, place.Slot)
        );

    // By the recipe, and by the words of its name: one picture may lie in a site under two names.
    private string KeyOf(string path, PictureMarks mark, string hash, Slot slot, FileRequest request)
    {
        var rule = slot.Dress.Title is null ? _rules.GetOrAdd(slot, RulesWriter.BytesKey) : RulesWriter.BytesKey(slot.For(mark.Title));
        var recipe = Recipe.Of(hash, Turn.None, request.Plan, rule, request.Format, null);
        return $"{recipe.Id}/{WordsOf(path, mark)}";
    }

    private static string WordsOf(string path, PictureMarks mark) => mark.Name ?? Path.GetFileNameWithoutExtension(path);

    private string HashOf(string path, RegularFile file)
    {
        if (_pictures.TryGetValue(path, out var known) && known.Bytes == file.Facts.Bytes && known.Changed == file.Facts.Changed)
        {
            return known.Hash;
        }

        using var stream = file.Read();
        return Convert.ToHexStringLower(SHA256.HashData(stream));
    }

    private string Write(string path, Slot slot, PictureMarks mark, MadeVariant made, string hash)
    {
        var name = $"{Stem(path, slot, made.Plan.Descriptor, made.Size, mark, hash)}.{made.Format!.Value.Ending()}";
        var full = Path.Combine(output, name);
        Interlocked.Increment(ref _made);
        if (new FileInfo(full) is not { Exists: true } there || there.Length != made.File!.LongLength)
        {
            Directory.CreateDirectory(output);
            var part = PartFile.For(full);
            File.WriteAllBytes(part, made.File!);
            File.Move(part, full, overwrite: true);
        }

        return name;
    }

    // A name with the hash of its content never means anything else: it may be kept for ever by who fetched it.
    private static string Stem(string path, Slot slot, Descriptor descriptor, PixelSize size, PictureMarks mark, string hash)
    {
        var stem = slot.NamePattern.Fill(new(WordsOf(path, mark), "", slot.Key, descriptor, size, slot.Size.Shape, hash));
        return slot.NamePattern.Text.Contains("{hash}", StringComparison.Ordinal) ? stem : $"{stem}-{hash[..NamePattern.HashDigits]}";
    }
}
