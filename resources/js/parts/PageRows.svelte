<script lang="ts">
    import { tick } from 'svelte';
    import { ahead, writes } from './ahead';
    import { broughtBy, isEmptyCase, standsIn } from './brings';
    import Broken from './Broken.svelte';
    import Choose from './Choose.svelte';
    import Floating from './Floating.svelte';
    import RowTools, { type Deed } from './RowTools.svelte';
    import Sentence from './Sentence.svelte';
    import WriteLine from './WriteLine.svelte';
    import type { Row, Word } from './words';
    import LetterEditor from './editors/LetterEditor.svelte';
    import WordEditor from './editors/WordEditor.svelte';
    import type { Resources } from '../api/client';
    import type { AnyDocument } from '../state/document.svelte';
    import { at, put, split, type JsonObject } from '../state/pointer';
    import { session } from '../state/session.svelte';
    import { say } from '../state/words';

    /* The rows of a rule page. With a document they can be written; words are reached with the arrow keys. */
    type Props = {
        rows: Row[];
        document?: AnyDocument | null;
        /** Whether lines can be added below: not where the rows are a part of one. */
        addsLines?: boolean;
    };
    let { rows, document: page = null, addsLines = true }: Props = $props();

    type Begun = Resources['BegunResource'];
    type Open = { anchor: HTMLElement; key: string; word: Word | null; below?: number };
    let open = $state<Open | null>(null);
    let root = $state<HTMLDivElement>();

    const problems = $derived(page?.reading.problems ?? []);
    const ends = $derived.by(() => {
        // After which row each group ends, so that its "+ condition" stands there.
        const after = new Map<number, Row[]>();
        rows.forEach((row, index) => {
            if (row.part !== 'group') return;
            let end = index;
            while (rows[end + 1] && ['group', 'condition'].includes(rows[end + 1]!.part) && rows[end + 1]!.depth > row.depth) end++;
            after.set(end, [row, ...(after.get(end) ?? [])]);
        });
        return after;
    });
    const lineRows = $derived(rows.filter((row) => row.part === 'line'));
    const lineCount = $derived(lineRows.length);
    /** Until and never stand below the lines. */
    const firstBelow = $derived(rows.findIndex((row) => ['until', 'never'].includes(row.part) || row.at.startsWith('/until')));
    const linesOf = (): JsonObject[] => (page?.at('/lines') as JsonObject[] | undefined) ?? [];
    const lineIndex = (row: Row) => Number(split(row.at)[1]);
    const messages = (row: Row) =>
        problems.filter((problem) => problem.at === row.at || (row.part !== 'group' && problem.at.startsWith(`${row.at}/`)));
    const keyOf = (word: Word) => `${word.at}|${word.editor?.sort}`;
    const isItem = (row: Row) => /\/\d+$/.test(row.at);

    let writing = $state<Word | null>(null);
    /** While the server words an edit, what is typed waits for the editor that opens next. */
    let wording = false;
    /** The page when the open editor was opened, and whether it stands on a row that was made for it. */
    let opened: { file: object; fresh: boolean } | null = null;

    function edit(word: Word, anchor: HTMLElement) {
        const row = anchor.closest<HTMLElement>('[data-row]')?.dataset.row ?? '';
        if (word.editor?.sort === 'begin' && word.at) void begin(word, row);
        else if (word.editor?.sort === 'letter') writing = word;
        else {
            opened = page && { file: page.file, fresh: opened?.fresh === true && opened.file === page.file };
            open = { anchor, key: keyOf(word), word };
        }
    }

    /**
     * The row that has the focus shows what can be added and may be taller for it. If a press moved the focus at once, what is
     * pressed would move away below the pointer before the click is done.
     */
    function stay(event: MouseEvent) {
        if ((event.target as HTMLElement).closest('[data-word]')) event.preventDefault();
    }

    /** What is begun goes on at its first gap: in a row of its own, or in the row it was begun from. */
    async function begin(word: Word, row: string) {
        const at = `${word.at}${word.editor?.then ?? ''}`;
        await page?.put(word.at ?? '', structuredClone((word.editor?.begins ?? {}) as JsonObject));
        await page?.settled;
        await proceed(page?.reading.rows.some((one) => one.at === at) ? at : row, true, at);
    }

    async function close() {
        const key = open?.key;
        const row = open?.anchor.closest<HTMLElement>('[data-row]')?.dataset.row;
        const before = opened;
        open = null;
        // What was typed for this word is for no other.
        ahead.take();
        const written = page !== null && before !== null && page.file !== before.file;
        const again = () => root?.querySelector<HTMLElement>(`[data-word="${CSS.escape(key ?? '')}"]`);
        again()?.focus();
        if (page && before?.fresh && !written) {
            // Nothing was chosen for the row that was made, so it goes again.
            opened = null;
            const [list] = split(row ?? '');
            page.undo();
            await page.settled;
            await tick();
            root?.querySelector<HTMLElement>(`[data-word="${CSS.escape(split(list)[0])}|condition"]`)?.focus();
        } else if (written && row !== undefined) {
            if (await proceed(row)) return;
        }
        await tick();
        if (!open) again()?.focus();
    }

    /** Back in its row, where what can be added shows. */
    async function closeLetter() {
        const key = writing && keyOf(writing);
        writing = null;
        await tick();
        root?.querySelector<HTMLElement>(`[data-word="${CSS.escape(key ?? '')}"]`)?.focus();
    }

    /** Tells later whether the person is still where they are now; whoever has moved on meanwhile is not called back. */
    function whoStays(): () => boolean {
        const here = document.activeElement;
        return () => [here, document.body, null].includes(document.activeElement);
    }

    /**
     * Once the server has worded an edit, the next gap of the row that was written opens by itself.
     *
     * @param fresh whether the row was made for it, and goes when nothing is chosen
     * @param part of the row, where only its gaps are meant
     * @returns whether the focus is where it should be: in that gap, or wherever the person has gone meanwhile
     */
    async function proceed(pointer: string, fresh = false, part = pointer): Promise<boolean> {
        const stayed = whoStays();
        wording = true;
        await page?.settled;
        await tick();
        wording = false;
        if (!stayed()) {
            ahead.take();
            return true;
        }
        const gap = [...(root?.querySelectorAll<HTMLElement>('[data-word].missing') ?? [])].find(
            (word) =>
                word.closest<HTMLElement>('[data-row]')?.dataset.row === pointer &&
                (word.dataset.word?.startsWith(`${part}/`) || word.dataset.word?.startsWith(`${part}|`)),
        );
        if (!gap || open || writing) {
            ahead.take();
            if (!gap) await focus(part);
            return false;
        }
        gap.focus();
        opened = page && { file: page.file, fresh };
        gap.click();
        return true;
    }

    async function focus(pointer: string) {
        await tick();
        const words = [...(root?.querySelectorAll<HTMLElement>('[data-word]') ?? [])].filter((word) =>
            word.dataset.word?.startsWith(`${pointer}/`),
        );
        (words.find((word) => word.classList.contains('missing')) ?? words[0])?.focus();
    }

    async function addCondition(group: Row, nested: boolean) {
        if (!page) return;
        const list = `${group.at}/of`;
        const next = ((page.at(list) as unknown[] | undefined) ?? []).length;
        if (page.at(group.at) === undefined) await page.put(group.at, { kind: 'all', of: [{}] });
        else await page.append(list, nested ? { kind: 'any', of: [{}] } : {});
        await proceed(`${list}/${next}${nested ? '/of/0' : ''}`, true);
    }

    async function addLine(kind: string | undefined) {
        const below = open?.below ?? null;
        open = null;
        const line = session.schema?.lines.find((offer) => offer.kind === kind);
        if (!page || !line) return;
        // Counted before the line is there.
        const index = below === null ? lineCount : below + 1;
        const deep = standsIn(lineRows[index - 1], linesOf());
        await page.edit((file) => {
            const lines = linesOf().toSpliced(index, 0, structuredClone(line.begins as JsonObject));
            put(file, '/lines', broughtBy(lines, index, line, deep));
        });
        await proceed(`/lines/${index}`);
    }

    /** What a line brings along as it is chosen, for one that was typed or has lost it. */
    function bring(row: Row, offer: Begun) {
        void page?.edit((file) => {
            put(file, '/lines', broughtBy(at(file, '/lines') as JsonObject[], lineIndex(row), offer, row.indent));
        });
    }

    /** The kind of a line that would bring others along, where none of them waits for it. */
    function bringer(row: Row): Begun | undefined {
        const lines = linesOf();
        const line = row.part === 'line' && addsLines ? lines[lineIndex(row)] : undefined;
        const waits = lines.some((one) => line?.key !== undefined && (one.at as JsonObject | undefined)?.line === line.key);
        return line && !waits && row.indent < 2
            ? session.schema?.lines.find((offer) => offer.kind === line.kind && offer.brings.length > 0)
            : undefined;
    }

    function deeds(row: Row): Deed[] {
        if (!page || !isItem(row)) return [];
        const brings = bringer(row);
        return [
            ...(brings ? [{ label: say('Lines for each answer'), keys: '', act: () => bring(row, brings) }] : []),
            ...(isCondition(row)
                ? [
                      { label: say('Out of its group'), keys: 'Alt ←', act: () => shift(row, false) },
                      { label: say('Into a group'), keys: 'Alt →', act: () => shift(row, true) },
                  ]
                : []),
            ...(row.heading
                ? [
                      row.indent === 0
                          ? { label: say('Into the case above'), keys: 'Alt →', act: () => setIn(row, true) }
                          : { label: say('Out of its case'), keys: 'Alt ←', act: () => setIn(row, false) },
                  ]
                : []),
            ...(row.part === 'line' && addsLines ? [{ label: say('A line below'), keys: 'Alt Enter', act: () => addBelow(row) }] : []),
            { label: say('Move up'), keys: 'Alt ↑', act: () => page.move(row.at, -1) },
            { label: say('Move down'), keys: 'Alt ↓', act: () => page.move(row.at, 1) },
            { label: say('Duplicate'), keys: 'Ctrl D', act: () => page.duplicate(row.at) },
            ...(row.part === 'line'
                ? [{ label: row.off ? say('Switch on') : say('Switch off'), keys: 'Alt O', act: () => switchLine(row) }]
                : []),
        ];
    }

    /** The heading of a case stands in by being within another. */
    function setIn(row: Row, isIn: boolean) {
        void page?.put(`${row.at}/inner`, isIn ? true : undefined);
    }

    /** The case that ends with a row, where nothing stands in it. */
    function emptyAbove(index: number): Row | undefined {
        const ends = ['condition', 'group'].includes(rows[index + 1]?.part ?? '') ? undefined : rows[index];
        const heading =
            ends &&
            (ends.part === 'line' || ends.at.startsWith('/lines/')) &&
            rows.findLast((row, at) => at <= index && row.part === 'line');
        return addsLines && heading && isEmptyCase(lineRows, heading, linesOf()) ? heading : undefined;
    }

    function addBelow(row: Row, anchor = root?.querySelector<HTMLElement>(`[data-row="${CSS.escape(row.at)}"] .b`)) {
        if (anchor) open = { anchor, key: anchor.dataset.word ?? `${row.at}|below`, word: null, below: lineIndex(row) };
    }

    function remove(row: Row) {
        void page?.remove(row.at);
    }

    const isCondition = (row: Row) => row.part === 'condition' || row.part === 'group';
    /** A row that can be taken away: an item of a list, or conditions that something has of its own. */
    const isOwn = (row: Row) =>
        isItem(row) || (isCondition(row) && /\/(onlyIf|lapses|where|again|until)$/.test(row.at) && row.at !== '/onlyIf');
    /** The time between two lines shows as room between them: twice the time is a little more of it. */
    function room(row: Row, index: number): number {
        const above = rows.slice(0, index).findLast((candidate) => candidate.part === 'line');
        if (row.part !== 'line' || row.after == null || above?.after == null || row.after <= above.after) return 0;
        return Math.min(26, Math.round(3 * Math.log2(1 + (row.after - above.after) / 3600)));
    }

    /** Whether the line through time goes by a row: by lines, and by conditions of their own, where more comes below. */
    const isTimed = (row: Row) =>
        row.part === 'line'
            ? lineCount > 1 || page !== null
            : row.at.startsWith('/lines/') && (page !== null || Number(row.at.split('/')[2]) < lineCount - 1);

    async function shift(row: Row, inwards: boolean) {
        if (row.heading) return setIn(row, inwards);
        if (!page || !isCondition(row) || !isItem(row)) return;
        const to = inwards ? await page.indent(row.at) : await page.outdent(row.at);
        await focus(to);
    }

    /** The focus goes with what is moved. */
    async function moveRow(row: Row, by: -1 | 1, word: string) {
        const [list, last] = split(row.at);
        await page?.move(row.at, by);
        await tick();
        const moved = word.replace(`${row.at}/`, `${list}/${Number(last) + by}/`);
        (root?.querySelector<HTMLElement>(`[data-word="${CSS.escape(moved)}"]`) ?? words()[0])?.focus();
    }

    function switchLine(row: Row) {
        void page?.put(`${row.at}/off`, row.off ? undefined : true);
    }

    function words(): HTMLElement[] {
        // What can be added shows in the row one is in.
        return [...(root?.querySelectorAll<HTMLElement>('[data-word]') ?? [])].filter((word) => word.offsetParent !== null);
    }

    function nearest(from: HTMLElement, down: boolean): HTMLElement | undefined {
        const here = from.getBoundingClientRect();
        const middle = here.left + here.width / 2;
        const candidates = words()
            .map((word) => ({ word, box: word.getBoundingClientRect() }))
            .filter(({ box }) => (down ? box.top > here.bottom - 4 : box.bottom < here.top + 4));
        const edge = down ? Math.min(...candidates.map(({ box }) => box.top)) : Math.max(...candidates.map(({ box }) => box.top));
        return candidates
            .filter(({ box }) => Math.abs(box.top - edge) < 8)
            .sort((a, b) => Math.abs(a.box.left + a.box.width / 2 - middle) - Math.abs(b.box.left + b.box.width / 2 - middle))[0]?.word;
    }

    function key(event: KeyboardEvent) {
        const target = event.target as HTMLElement;
        if (target.dataset.word === undefined) return;
        if (page && (writes(event) || (wording && event.key === 'Enter'))) {
            // Typing on a word opens it with what is typed.
            event.preventDefault();
            ahead.add(event.key);
            if (!wording && !open) target.click();
            return;
        }
        const all = words();
        const index = all.indexOf(target);
        const pointer = target.closest<HTMLElement>('[data-row]')?.dataset.row ?? '';
        const row = rows.find((candidate) => candidate.at === pointer);
        let to: HTMLElement | undefined;
        if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
            if (page && row && isItem(row)) void moveRow(row, event.key === 'ArrowUp' ? -1 : 1, target.dataset.word);
        } else if (event.altKey && (event.key === 'ArrowRight' || event.key === 'ArrowLeft')) {
            if (row) void shift(row, event.key === 'ArrowRight');
        } else if ((event.ctrlKey || event.metaKey) && event.key === 'd') {
            if (page && row && isItem(row)) void page.duplicate(row.at);
        } else if (event.altKey && event.key === 'Enter') {
            if (page && addsLines && row?.part === 'line') addBelow(row);
        } else if (event.altKey && event.key === 'o') {
            if (row?.part === 'line') switchLine(row);
        } else if (event.key === 'ArrowRight') to = all[index + 1];
        else if (event.key === 'ArrowLeft') to = all[index - 1];
        else if (event.key === 'ArrowDown') to = nearest(target, true);
        else if (event.key === 'ArrowUp') to = nearest(target, false);
        else if (event.key === 'Home') to = all[0];
        else if (event.key === 'End') to = all.at(-1);
        else if ((event.key === 'Delete' || event.key === 'Backspace') && page && row && isOwn(row)) {
            (all[index - 1] ?? all[index + 1])?.focus();
            remove(row);
        } else return;
        event.preventDefault();
        to?.focus();
    }
</script>

{#snippet addALine()}
    {#if page && addsLines && rows.some((row) => row.part === 'fires')}
        <div class="line timed last" class:first={lineCount === 0}>
            <div class="m">{lineCount ? 'when?' : 'at once'}<i class="dot open"></i></div>
            <div class="b flex! items-start gap-3">
                <div class="min-w-0 flex-1"><WriteLine {page} /></div>
                <button
                    type="button"
                    class="word ghost shrink-0"
                    title="Choose what the rule does"
                    data-word="/lines|add"
                    aria-haspopup="dialog"
                    onclick={(event) => (open = { anchor: event.currentTarget, key: '/lines|add', word: null })}>+ a line</button
                >
            </div>
        </div>
    {/if}
{/snippet}

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="lines" bind:this={root} onkeydown={key} onmousedown={stay}>
    {#each rows as row, index (row.at + row.part)}
        {#if index === firstBelow}{@render addALine()}{/if}
        {@const follows = ['group', 'condition'].includes(rows[index + 1]?.part ?? '') && ['group', 'condition'].includes(row.part)}
        <div
            class="line"
            class:editable={page !== null}
            class:cont={row.part === 'condition' || (row.part === 'group' && row.depth > 0)}
            class:joined={follows || (page !== null && (ends.has(index) || emptyAbove(index) !== undefined))}
            class:timed={isTimed(row)}
            class:first={row.part === 'line' && lineIndex(row) === 0}
            class:last={row.part === 'line' && page === null && lineIndex(row) === lineCount - 1}
            class:off={row.off}
            class:offers={['until', 'never'].includes(row.part) || row.words.every((word) => word.role === 'more')}
            data-row={row.at}
            class:in-case={row.indent > 0}
            class:heading={row.heading}
            style:--room="{room(row, index)}px"
            style:--indent={row.indent}
        >
            <div class="m" class:h={row.part !== 'line'}>
                {#if page && row.when}
                    {@const when = row.when}
                    <button
                        type="button"
                        class="when"
                        title="When this line is done"
                        data-word={keyOf(when)}
                        aria-haspopup="dialog"
                        onclick={(event) => edit(when, event.currentTarget)}>{row.margin}</button
                    >
                {:else}{row.margin}{/if}
                {#if row.part === 'line' && row.margin !== ''}<i class="dot" class:open={row.margin !== 'at once'}></i>{/if}
            </div>
            <div class="b">
                <div class:nest={row.depth > 0} style:margin-left="{Math.max(0, row.depth - 1) * 14}px">
                    <svelte:boundary>
                        <Sentence
                            words={row.words}
                            {problems}
                            remarked={page?.remarks.map((remark) => remark.at)}
                            onedit={page ? edit : undefined}
                            editing={open?.key ?? null}
                        />
                        {#snippet failed()}<Broken />{/snippet}
                    </svelte:boundary>
                    {#if row.off}<span class="mini ml-1">switched off</span>{/if}
                    {#each messages(row).filter((problem) => problem.code !== 'missing') as problem (problem.at + problem.code)}
                        <span class="note-wrong">{problem.message}</span>
                    {/each}
                </div>
            </div>
            {#if page && isOwn(row)}<RowTools deeds={deeds(row)} onremove={() => remove(row)} />{/if}
        </div>
        {#if page}
            {#each (ends.get(index) ?? []).toReversed() as group, position (group.at)}
                {@const isLast =
                    position === (ends.get(index)?.length ?? 0) - 1 && !['group', 'condition'].includes(rows[index + 1]?.part ?? '')}
                <div
                    class="line cont"
                    class:timed={group.at.startsWith('/lines/')}
                    class:joined={!isLast || emptyAbove(index) !== undefined}
                    class:in-case={group.indent > 0}
                    style:--indent={group.indent}
                >
                    <div class="m"></div>
                    <div class="b">
                        <div class="nest" style:margin-left="{group.depth * 14}px">
                            <button
                                type="button"
                                class="word ghost"
                                data-word="{group.at}|condition"
                                onclick={() => addCondition(group, false)}>+ condition</button
                            >
                            &nbsp;
                            <button type="button" class="word ghost" data-word="{group.at}|group" onclick={() => addCondition(group, true)}
                                >+ group</button
                            >
                        </div>
                    </div>
                </div>
            {/each}
            {@const empty = emptyAbove(index)}
            {#if empty}
                <div class="line cont timed in-case" style:--indent={empty.indent + 1}>
                    <div class="m"></div>
                    <div class="b">
                        <button
                            type="button"
                            class="word ghost"
                            title="Choose what is done in this case"
                            data-word="{empty.at}|line"
                            aria-haspopup="dialog"
                            onclick={(event) => addBelow(empty, event.currentTarget)}>+ a line</button
                        >
                    </div>
                </div>
            {/if}
        {/if}
    {/each}
    {#if firstBelow < 0}{@render addALine()}{/if}
</div>

{#if open && page}
    <Floating anchor={open.anchor} label="Change this word" onclose={close}>
        {#if open.word}
            <WordEditor document={page} word={open.word} onclose={close} />
        {:else}
            <Choose
                title="A line"
                options={(session.schema?.lines ?? []).map((line) => ({ key: line.kind, label: line.label }))}
                onchoose={([kind]) => addLine(kind)}
                onclose={close}
            />
        {/if}
    </Floating>
{/if}

{#if writing && page}
    <LetterEditor document={page} editor={writing.editor!} at={writing.at ?? ''} onclose={closeLetter} />
{/if}
