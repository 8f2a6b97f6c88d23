<script lang="ts">
    import { Dropdown, DropdownItem, Input, Select } from 'flowbite-svelte';
    import { Redo2, Undo2 } from '@lucide/svelte';
    import { onMount, untrack } from 'svelte';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import PageRows from '../../parts/PageRows.svelte';
    import WriteRule from '../../parts/WriteRule.svelte';
    import What from '../../parts/What.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { STATUS } from '../../parts/status';
    import { go } from '../../router';
    import { crumbs } from '../../state/crumbs.svelte';
    import { Document } from '../../state/document.svelte';
    import { day, localDay, moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { UnsavedDraft, type Unsaved } from '../../state/unsaved';
    import type { RuleDraft } from '../../state/written';
    import { toasts } from '../../state/toasts.svelte';
    import PutInForce from './PutInForce.svelte';
    import AsText from './AsText.svelte';
    import Reverse from '../../parts/Reverse.svelte';
    import RuleEvidence from './RuleEvidence.svelte';
    import RuleSwitch from './RuleSwitch.svelte';
    import Hint from '../../parts/Hint.svelte';
    import { counted, countedOf, within, say } from '../../state/words';

    type Props = { rule: Resources['RuleResource']; onchange: (rule: Resources['RuleResource']) => void; onreload: () => void };
    let { rule, onchange, onreload }: Props = $props();

    const proofs = $derived.by(() => {
        const own = page.tried.filter((one) => one.rule === rule.id);
        const broken = own.filter((one) => !one.holds).length;
        if (!own.length) return '';
        return broken
            ? `${broken} of ${counted(own.length, ['# proof broken', '# proofs broken'])}`
            : counted(own.length, ['# proof holds', '# proofs hold']);
    });
    const may = $derived(session.me?.mayEditRules ?? false);
    const first = untrack(() => rule);
    let version = $state(first.draftVersion);
    let keptAt = $state(first.draftAt);
    let hasDraft = $state(first.hasDraft);
    let asking = $state<'publish' | 'retire' | 'discard' | 'copy' | 'set' | 'reverse' | 'text' | null>(null);
    let copyOn = $state(first.on);
    let set = $state(first.eitherOr);
    let evidence = $state<ReturnType<typeof RuleEvidence>>();

    const page = new Document(first.on, first.file as RuleDraft, first.reading, { keep, failed, mayPass });
    const shelf = new UnsavedDraft<RuleDraft>(session.me?.id ?? 0, first.id);
    /** Why what stands here is not kept. */
    let trouble = $state<'away' | 'stale' | string>('');
    /** What was written here before and never kept, though the draft has changed since. */
    let left = $state<Unsaved<RuleDraft> | null>(null);
    onMount(() => {
        const kept = may ? shelf.take() : null;
        if (kept && JSON.stringify(kept.file) !== JSON.stringify(page.file)) {
            if (kept.version === version) void page.replace(kept.file);
            else left = kept;
        } else if (kept) shelf.clear();
        return () => page.end();
    });
    const name = $derived(page.file.name ?? '');
    const problems = $derived(page.reading.problems);
    $effect(() =>
        crumbs.set(
            { label: 'Rules', to: '/rules' },
            { label: session.type(first.on).plural, to: '/rules' },
            { label: name || 'Untitled rule' },
        ),
    );
    const nextPage = $derived((rule.page ?? 0) + 1);

    async function keep(file: RuleDraft): Promise<Resources['ReadingResource']> {
        shelf.put(file, version);
        const written = await ask(api.PUT('/api/rules/{id}/draft', { params: { path: { id: rule.id } }, body: { version, file } }));
        version = written.draftVersion;
        keptAt = written.draftAt;
        hasDraft = true;
        trouble = '';
        shelf.clear();
        return written.reading;
    }

    function mayPass(thrown: unknown): boolean {
        const status = thrown instanceof Refusal ? thrown.problem.status : 0;
        return status === 0 || status === 429 || status >= 500;
    }

    function failed(thrown: unknown) {
        trouble = mayPass(thrown) ? 'away' : thrown instanceof Refusal && thrown.problem.code === 'stale_version' ? 'stale' : said(thrown);
    }

    /** What stands here takes the place of what somebody else has kept meanwhile. */
    async function overwrite(file: RuleDraft) {
        try {
            version = (await ask(api.GET('/api/rules/{id}', { params: { path: { id: rule.id } } }))).draftVersion;
            left = null;
            await (file === page.file ? page.again() : page.replace(file));
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    function giveWay() {
        shelf.clear();
        left = null;
        if (page.unsaved) onreload();
    }

    function rename(event: Event & { currentTarget: HTMLInputElement }) {
        void page.put('/name', event.currentTarget.value.trim());
    }

    function askToPublish() {
        if (problems.length) evidence?.show('remarks');
        else asking = 'publish';
    }

    /** Once what was typed last is kept. */
    async function publishNext() {
        if (document.activeElement instanceof HTMLInputElement) document.activeElement.blur();
        await page.settled;
        if (!page.unsaved) askToPublish();
    }

    async function move(status: 'in_force' | 'paused' | 'retired', told: string) {
        asking = null;
        try {
            onchange(await ask(api.POST('/api/rules/{id}/status', { params: { path: { id: rule.id } }, body: { status } })));
            toasts.tell(told);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    async function discard() {
        asking = null;
        try {
            await ask(api.DELETE('/api/rules/{id}/draft', { params: { path: { id: rule.id } } }));
            toasts.tell('The draft is gone.');
            if (rule.page === null) go('/rules');
            else onreload();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    async function copy() {
        asking = null;
        try {
            const made = await ask(api.POST('/api/rules/{id}/copy', { params: { path: { id: rule.id } }, body: { on: copyOn } }));
            const count = made.reading.problems.length;
            toasts.tell(
                count
                    ? counted(count, [
                          'The copy is a draft; # word did not fit and wants mending.',
                          'The copy is a draft; # words did not fit and want mending.',
                      ])
                    : 'The copy is a draft.',
            );
            go(`/rules/${made.id}`);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    async function stand() {
        asking = null;
        try {
            onchange(await ask(api.POST('/api/rules/{id}/either-or', { params: { path: { id: rule.id } }, body: { set } })));
            toasts.tell(set.trim() ? `Of “${set.trim()}” only the first that matches fires.` : 'The rule answers for itself again.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    function key(event: KeyboardEvent) {
        // What is open over the page has keys of its own.
        if (!(event.ctrlKey || event.metaKey) || asking || (event.target as HTMLElement).closest('.floating, dialog')) return;
        if (event.key === 'Enter') {
            if (hasDraft && session.has('put_in_force')) void publishNext();
        } else if (/^(INPUT|TEXTAREA)$/.test((event.target as HTMLElement).tagName)) return;
        else if (event.key === 'z' && !event.shiftKey) page.undo();
        else if (event.key === 'y' || (event.key === 'z' && event.shiftKey) || event.key === 'Z') page.redo();
        else return;
        event.preventDefault();
    }
</script>

<svelte:window onkeydown={may ? key : undefined} ononline={() => page.again()} />

<div class="spread grid-cols-[minmax(0,1fr)_clamp(330px,40%,600px)]">
    <section class="leaf left">
        <header class="flex items-start gap-3">
            <div class="min-w-0 flex-1">
                {#if may}
                    <h1 class="sr-only">{name || 'Untitled rule'}</h1>
                    <input
                        class="rule-name"
                        aria-label="Name of the rule"
                        placeholder="Name this rule"
                        maxlength="80"
                        value={name}
                        onchange={rename}
                        onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
                    />
                {:else}
                    <h1>{name}</h1>
                {/if}
                {#if may}
                    <input
                        class="rule-purpose"
                        aria-label="What the rule is for"
                        placeholder="What is it for?"
                        maxlength="300"
                        value={page.file.purpose ?? ''}
                        onchange={(event) => page.put('/purpose', event.currentTarget.value.trim() || undefined)}
                        onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
                    />
                {:else if page.file.purpose}
                    <p class="mt-1 text-[13px] text-ink-2">{page.file.purpose}</p>
                {/if}
                <p class="sub flex flex-wrap items-center gap-x-2">
                    {#if hasDraft}
                        <Stamp tone="harbor">Draft, page {nextPage}</Stamp>
                        {#if rule.eitherOr}<span
                                >either/or “{rule.eitherOr}”<What word={say('either/or')}
                                    >Of the rules of this set only the first answers whose conditions match, in the order of the list of
                                    rules.</What
                                ></span
                            ><span>·</span>{/if}
                        {#if rule.page}<span>page {rule.page}: {within(STATUS[rule.status]?.label ?? '')}</span><span>·</span>{/if}
                        {#if proofs}<span>{proofs}</span><span>·</span>{/if}
                        {#if !page.unsaved}<span aria-live="polite"
                                >{page.saving ? say('saving…') : `saved ${keptAt ? moment(keptAt) : ''}`}</span
                            >{/if}
                    {:else}
                        <Stamp tone={STATUS[rule.status]?.tone ?? 'fern'}>{STATUS[rule.status]?.label}</Stamp>
                        <span class="min-w-0 flex-1">
                            {rule.inForceSince ? `since ${day(localDay(rule.inForceSince))}, ` : ''}page {rule.page} · {counted(
                                rule.entries,
                                ['# firing in 30 days', '# firings in 30 days'],
                            )}{rule.inPlay ? ` · in play on ${countedOf(rule.inPlay, session.type(rule.on))}` : ''}{proofs
                                ? ` · ${proofs}`
                                : ''}
                        </span>
                    {/if}
                </p>
            </div>
            {#if may}
                <div class="flex shrink-0 items-center gap-1.5">
                    {#if session.has('put_in_force')}<RuleSwitch {rule} {onchange} />{/if}
                    <button type="button" class="icon" aria-label="Undo" disabled={!page.undoable} onclick={() => page.undo()}>
                        <Undo2 size={15} class={page.undoable ? '' : 'opacity-40'} />
                    </button><Hint>Undo (Ctrl Z)</Hint>
                    <button type="button" class="icon" aria-label="Redo" disabled={!page.redoable} onclick={() => page.redo()}>
                        <Redo2 size={15} class={page.redoable ? '' : 'opacity-40'} />
                    </button><Hint>Redo (Ctrl Y)</Hint>
                    <button type="button" class="btn" id="more" aria-label="More for this rule">More</button>
                    <Dropdown simple triggeredBy="#more" class="z-40 min-w-44 rounded-lg border border-edge bg-page py-1 shadow-xl">
                        <DropdownItem href="/api/rules/{rule.id}/file" download class="px-4 py-1.5 text-[13px] font-normal"
                            >Export as a file</DropdownItem
                        >
                        <DropdownItem class="px-4 py-1.5 text-[13px] font-normal" onclick={() => (asking = 'text')}>As text…</DropdownItem>
                        <DropdownItem class="px-4 py-1.5 text-[13px] font-normal" onclick={() => (asking = 'copy')}>Copy…</DropdownItem>
                        <DropdownItem class="px-4 py-1.5 text-[13px] font-normal" onclick={() => (asking = 'set')}
                            >{rule.eitherOr ? `Either/or set “${rule.eitherOr}”…` : 'Put into an either/or set…'}</DropdownItem
                        >
                        {#if session.has('put_in_force') && rule.status === 'in_force'}
                            <DropdownItem class="px-4 py-1.5 text-[13px] font-normal" onclick={() => move('paused', 'The rule is paused.')}
                                >Pause</DropdownItem
                            >
                        {:else if session.has('put_in_force') && rule.status !== 'draft'}
                            <DropdownItem
                                class="px-4 py-1.5 text-[13px] font-normal"
                                onclick={() => move('in_force', `Page ${rule.page} is in force again.`)}
                                >Put page {rule.page} back in force</DropdownItem
                            >
                        {/if}
                        {#if rule.page}
                            <DropdownItem class="px-4 py-1.5 text-[13px] font-normal" onclick={() => (asking = 'reverse')}
                                >Reverse what it did…</DropdownItem
                            >
                        {/if}
                        {#if session.has('put_in_force') && (rule.status === 'in_force' || rule.status === 'paused')}
                            <DropdownItem class="px-4 py-1.5 text-[13px] font-normal" onclick={() => (asking = 'retire')}
                                >Retire…</DropdownItem
                            >
                        {/if}
                        {#if hasDraft}
                            <DropdownItem class="px-4 py-1.5 text-[13px] font-normal text-madder!" onclick={() => (asking = 'discard')}
                                >Discard the draft…</DropdownItem
                            >
                        {/if}
                    </Dropdown>
                    {#if hasDraft && session.has('put_in_force')}
                        <button type="button" class="btn go" disabled={page.unsaved} onclick={publishNext}
                            >{rule.page === null ? 'Put in force…' : `Publish page ${nextPage}…`}</button
                        >
                    {/if}
                </div>
            {/if}
        </header>
        {#if page.unsaved || left}
            <div
                class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-ruled bg-madder-wash px-7 py-2 text-[13px]"
                role="alert"
            >
                {#if page.unsaved && trouble !== 'stale'}
                    <span class="min-w-0 flex-1"
                        ><strong>Not saved.</strong>
                        {trouble === 'away' ? say('There is no connection to the server. It is tried again by itself.') : trouble}</span
                    >
                    <button type="button" class="btn" disabled={page.saving} onclick={() => page.again()}>Try again</button>
                {:else}
                    <span class="min-w-0 flex-1"
                        ><strong>Not saved.</strong>
                        {left
                            ? `What you wrote at ${moment(left.at)} was not saved, and the draft has changed since.`
                            : say('Somebody else has changed this draft meanwhile.')}</span
                    >
                    <button type="button" class="btn" disabled={page.saving} onclick={() => overwrite(left ? left.file : page.file)}
                        >Put mine in its place</button
                    >
                    <button type="button" class="btn quiet" onclick={giveWay}>{left ? say('Discard mine') : say('Use theirs')}</button>
                {/if}
            </div>
        {/if}
        <div class="scroll flex flex-col">
            {#if may && rule.page === null && !page.file.lines?.length}<WriteRule {page} />{/if}
            <PageRows rows={page.reading.rows} document={may ? page : null} />
        </div>
        {#if may}
            <div class="keys shrink-0">
                <span><kbd>← →</kbd>word</span><span><kbd>↑ ↓</kbd>row</span><span><kbd>Enter</kbd>change</span>
                <span><kbd>Del</kbd>remove</span><span><kbd>Alt ↑↓←→</kbd>move</span><span><kbd>Ctrl Z</kbd>undo</span><span
                    ><kbd>Ctrl Enter</kbd>put in force</span
                >
            </div>
        {/if}
    </section>
    <RuleEvidence bind:this={evidence} {rule} {page} {onreload} />
</div>

{#if asking === 'publish'}
    <PutInForce
        {rule}
        {version}
        page={nextPage}
        onclose={() => (asking = null)}
        ondone={(next) => {
            asking = null;
            onchange(next);
        }}
    />
{:else if asking === 'copy'}
    <Confirm title="Copy “{name || 'this rule'}”" go="Copy it" onconfirm={copy} onclose={() => (asking = null)}>
        <label class="flex items-center gap-3"
            >For
            <Select placeholder="" bind:value={copyOn}>
                {#each session.schema?.types ?? [] as type (type.name)}<option value={type.name}>{type.plural}</option>{/each}
            </Select></label
        >
        <p>The copy is a draft. What does not fit other records is listed as a remark, at its word.</p>
    </Confirm>
{:else if asking === 'set'}
    <Confirm title="Either/or set" go="Save" onconfirm={stand} onclose={() => (asking = null)}>
        <p>
            Of the rules that share a set, only the first whose conditions match answers a change. The order is that of the list of rules.
        </p>
        <Input aria-label="Name of the set" placeholder="no set" maxlength={80} bind:value={set} />
    </Confirm>
{:else if asking === 'retire'}
    <Confirm
        title="Retire “{rule.name}”?"
        go="Retire the rule"
        danger
        onconfirm={() => move('retired', 'The rule is retired.')}
        onclose={() => (asking = null)}
    >
        <p>It fires no more. Its pages and its entries stay in the ledger, and it can be put back in force.</p>
    </Confirm>
{:else if asking === 'text'}
    <AsText {page} {may} onclose={() => (asking = null)} />
{:else if asking === 'reverse'}
    <Reverse rule={{ id: rule.id, name: rule.name }} onclose={() => (asking = null)} />
{:else if asking === 'discard'}
    <Confirm title="Discard the draft?" go="Discard it" danger onconfirm={discard} onclose={() => (asking = null)}>
        <p>{rule.page === null ? 'This rule was never in force, so all of it goes.' : `Page ${rule.page} stays as it is.`}</p>
    </Confirm>
{/if}
