<script lang="ts">
    import { isWide } from '../../state/places';
    import { shownNumber, typedNumber } from '../../state/numbers';
    import { Input, Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';
    import ImportPeople from './ImportPeople.svelte';
    import InvitePerson from './InvitePerson.svelte';
    import MayLeaf from '../access/MayLeaf.svelte';
    import LeavePerson from './LeavePerson.svelte';
    import What from '../../parts/What.svelte';
    import PeopleTree from './PeopleTree.svelte';
    import PersonFacts from './PersonFacts.svelte';
    import Stamp from '../../parts/Stamp.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { day, localDay } from '../../state/moments';
    import { language } from '../../state/language.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import DateField from '../../parts/fields/DateField.svelte';
    import { counted, say, within } from '../../state/words';

    /* Who works here, what they may do, who stands in for them, and when they are absent. */
    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'People' });
    const client = useQueryClient();
    const roles = createQuery(() => ({ queryKey: ['roles'], queryFn: () => ask(api.GET('/api/roles')) }));
    const people = createQuery(() => ({ queryKey: ['people'], queryFn: () => ask(api.GET('/api/people')) }));
    const may = $derived(session.has('keep_house'));
    const COLUMNS = 'grid grid-cols-[1.3fr_1.2fr_100px_1fr] gap-3 border-b border-ruled px-7';
    let search = $state('');
    // Whoever was looked for by name is open.
    let chosen = $state(Number(new URLSearchParams(location.search).get('person')) || 0);
    let inviting = $state<'one' | 'many' | null>(null);
    let leaving = $state(false);
    let asking = $state(false);
    let asTree = $state(false);
    let refusal = $state.raw<Refusal | null>(null);
    let away = $state({ from: '', until: '', deputy: '' });
    const nameOf = (id: number | null) => people.data?.find((person) => person.id === id)?.name ?? '';
    const shown = $derived(
        (people.data ?? []).filter((person) => `${person.name} ${person.team}`.toLowerCase().includes(search.trim().toLowerCase())),
    );
    const open = $derived(people.data?.find((person) => person.id === chosen));
    const money = (limit: string | null) =>
        limit === null ? say('nothing') : inEuros(Number(limit).toLocaleString(language.tag, { maximumFractionDigits: 2 }));
    const inEuros = (figures: string) => (language.code === 'de' ? `${figures} €` : `€ ${figures}`);
    const others = $derived((people.data ?? []).filter((person) => person.active && person.id !== chosen));
    const amounts = $derived((session.schema?.types ?? []).filter((type) => type.fields.some((field) => field.type === 'money')));
    const teams = $derived([...new Set((people.data ?? []).map((person) => person.team).filter(Boolean))].sort());
    const mayEnter = $derived(may || chosen === session.me?.id);

    $effect(() => {
        // Half a desk is not left empty.
        if (!chosen && people.data?.[0] && isWide()) chosen = people.data[0].id;
    });

    const choose = (id: number) => ([chosen, inviting, leaving, asking, refusal] = [id, null, false, false, null]);

    async function run(act: () => Promise<unknown>, told: string): Promise<boolean> {
        refusal = null;
        try {
            await act();
            toasts.tell(told);
            await Promise.all([client.invalidateQueries({ queryKey: ['people'] }), session.refreshPeople()]);
            return true;
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            else toasts.complain(said(thrown));
            return false;
        }
    }

    const change = (body: Record<string, unknown>) =>
        run(() => ask(api.PATCH('/api/people/{id}', { params: { path: { id: chosen } }, body })), 'Saved.');

    function limited(type: string, value: string) {
        const limits = { ...((open?.limits ?? {}) as Record<string, string>) };
        if (value.trim() === '') delete limits[type];
        else limits[type] = plain(value);
        void change({ limits });
    }

    /** "20,000" as people write it. */
    const plain = (value: string) => typedNumber(value.replaceAll('€', '').trim());

    async function goAway() {
        const until = new Date(Date.parse(`${away.until}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10);
        const body = { from: away.from, until, ...(away.deputy ? { deputyId: Number(away.deputy) } : {}) };
        const done = await run(
            () => ask(api.POST('/api/people/{id}/absences', { params: { path: { id: chosen } }, body })),
            'The absence is saved. What waits meanwhile goes to the deputy.',
        );
        if (done) away = { from: '', until: '', deputy: '' };
    }

    const back = (absence: Resources['AbsenceResource']) =>
        run(() => ask(api.DELETE('/api/absences/{id}', { params: { path: { id: absence.id } } })), 'The absence is taken back.');
    const lastDay = (until: string) => day(localDay(new Date(Date.parse(until) - 1000)));
</script>

<div class="spread grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
    <section class="leaf left">
        <header class="flex flex-wrap items-start gap-3">
            <h1>People</h1>
            <button type="button" class="btn quiet ml-auto" aria-pressed={asTree} onclick={() => (asTree = !asTree)}
                >{asTree ? 'As a list' : 'Who works for whom'}</button
            >
            <Input class="max-w-44" type="search" aria-label="Search people" placeholder="Name or team" bind:value={search} />
            {#if may}<button type="button" class="btn go" onclick={() => ((inviting = 'one'), (chosen = 0))}>Invite</button><button
                    type="button"
                    class="btn"
                    onclick={() => ((inviting = 'many'), (chosen = 0))}>Invite many</button
                >{/if}
            <p class="sub -mt-2 basis-full">Who works here, and for whom.</p>
        </header>
        <div class="scroll">
            <div class="{COLUMNS} py-1.5 text-[12px] text-ink-3" class:hidden={asTree && !search.trim()} aria-hidden="true">
                <span>Name</span><span>Manager</span><span class="text-right">Signs off</span><span>Deputy</span>
            </div>
            {#if asTree && !search.trim()}
                <PeopleTree people={people.data ?? []} {chosen} onchoose={choose} />
            {:else}{#each shown as person (person.id)}
                    <button
                        type="button"
                        class="{COLUMNS} w-full items-baseline py-2 text-left text-[13px] hover:bg-lit {person.id === chosen
                            ? 'bg-picked'
                            : ''}"
                        aria-pressed={person.id === chosen}
                        onclick={() => choose(person.id)}
                    >
                        <span class="min-w-0">
                            <b class="font-semibold {person.active ? '' : 'text-ink-3 line-through'}">{person.name}</b>
                            {#if person.away}<Stamp tone="marigold">absent</Stamp>{/if}
                            {#if !person.hasJoined && person.active}<Stamp tone="harbor">invited</Stamp>{/if}
                            <span class="mini block truncate">{person.team}</span>
                        </span>
                        <span class="truncate text-ink-2">{nameOf(person.managerId)}</span>
                        <span class="figures text-right {person.limit === null ? 'text-ink-3' : ''}"
                            >{person.limit === null ? '–' : money(person.limit)}</span
                        >
                        <span class="truncate text-ink-2">{nameOf(person.deputyId)}</span>
                    </button>
                {:else}
                    {#if people.data}<div class="empty"><h2>Nobody has that name.</h2></div>{/if}
                {/each}{/if}
        </div>
    </section>
    <section class="leaf right">
        {#if inviting === 'many'}
            <ImportPeople
                ondone={(count) => {
                    inviting = null;
                    void run(async () => {}, counted(count, ['# person invited.', '# people invited.']));
                }}
                oncancel={() => (inviting = null)}
            />
        {:else if inviting}
            <InvitePerson
                roles={roles.data ?? null}
                people={people.data ?? []}
                {teams}
                ondone={(made) => {
                    inviting = null;
                    chosen = made.id;
                    void run(async () => {}, `${made.name} is invited.`);
                }}
                oncancel={() => (inviting = null)}
            />
        {:else if open}
            {#key open.id}
                <header class="flex items-start gap-3">
                    <div class="min-w-0 flex-1">
                        <h2 class="title text-[21px]!">{open.name}</h2>
                        <p class="sub">
                            {[open.team, roles.data?.roles.find((one) => one.name === open?.role)?.label ?? open.role, open.email]
                                .filter(Boolean)
                                .join(' · ')}
                        </p>
                    </div>
                    {#if may && !leaving}<button type="button" class="btn quiet" aria-pressed={asking} onclick={() => (asking = !asking)}
                            >{asking ? 'Personal details' : 'What may they?'}</button
                        >{/if}
                    {#if may && open.active && !leaving && !asking}
                        <button type="button" class="btn quiet danger" onclick={() => (leaving = true)}>Has left…</button>
                    {/if}
                </header>
                {#if asking}
                    <div class="scroll px-7 py-4 text-[13px]"><MayLeaf person={open} /></div>
                {:else}
                    <div class="scroll px-7 py-4 text-[13px]">
                        {#each refusal?.problem.problems ?? [] as one (one.at)}<p class="callout bad mb-2" role="alert">{one.message}</p>
                        {:else}{#if refusal}<p class="callout bad mb-2" role="alert">{refusal.message}</p>{/if}{/each}
                        {#if may && leaving && open.active}<LeavePerson
                                person={open}
                                {others}
                                ondone={() => {
                                    leaving = false;
                                    void run(async () => {}, `${open?.name} has left.`);
                                }}
                                oncancel={() => (leaving = false)}
                            />{/if}
                        {#if may && !open.active}
                            <div class="callout mb-3 flex items-center gap-3">
                                <span class="flex-1">{open.name} has left the company.</span>
                                <button
                                    type="button"
                                    class="btn"
                                    onclick={() =>
                                        run(
                                            () => ask(api.POST('/api/people/{id}/return', { params: { path: { id: chosen } } })),
                                            'Back. What nobody has touched since is theirs again.',
                                        )}>Bring back</button
                                >
                            </div>
                        {/if}
                        {#if may}<PersonFacts
                                roles={roles.data ?? null}
                                person={open}
                                {teams}
                                onchange={change}
                                oninvite={() =>
                                    run(
                                        () => ask(api.POST('/api/people/{id}/invite', { params: { path: { id: chosen } } })),
                                        'The invitation is on its way again.',
                                    )}
                            />{/if}
                        <fieldset disabled={!may} class="grid grid-cols-[130px_1fr] items-center gap-x-3 gap-y-2">
                            <label for="manager">Manager</label>
                            <Select
                                placeholder=""
                                id="manager"
                                value={open.managerId ?? ''}
                                onchange={(event) => change({ managerId: Number(event.currentTarget.value) || null })}
                            >
                                <option value="">nobody</option>
                                {#each others as person (person.id)}<option value={person.id}>{person.name}, {person.team}</option>{/each}
                            </Select>
                            <span class="flex items-center"
                                ><label for="deputy">Deputy</label><What word={say('Deputy')}
                                    >Answers for them while they are absent: sign-offs and slips go there, and come back afterwards.</What
                                ></span
                            >
                            <Select
                                placeholder=""
                                id="deputy"
                                value={open.deputyId ?? ''}
                                onchange={(event) => change({ deputyId: Number(event.currentTarget.value) || null })}
                            >
                                <option value="">nobody</option>
                                {#each others as person (person.id)}<option value={person.id}>{person.name}, {person.team}</option>{/each}
                            </Select>
                            <span class="flex items-center"
                                ><label for="limit">May sign off up to</label><What word={say('May sign off up to')}
                                    >The highest amount they can agree to. What is above it goes on to whoever they report to.
                                    {#snippet example()}With 5,000, a quote over 6,000 waits for their manager.{/snippet}</What
                                ></span
                            >
                            <Input
                                id="limit"
                                class="figures"
                                inputmode="decimal"
                                placeholder="nothing"
                                value={shownNumber(open.limit ?? '')}
                                onchange={(event) => change({ limit: plain(event.currentTarget.value) || null })}
                            />
                            {#each amounts as type (type.name)}
                                <label class="text-ink-2" for="limit-{type.name}">… for {within(type.plural)}</label>
                                <Input
                                    id="limit-{type.name}"
                                    class="figures"
                                    inputmode="decimal"
                                    placeholder="the same"
                                    value={shownNumber((open.limits as Record<string, string>)[type.name] ?? '')}
                                    onchange={(event) => limited(type.name, event.currentTarget.value)}
                                />
                            {/each}
                        </fieldset>
                        <h3 class="mt-6 mb-1 font-semibold">Absences</h3>
                        {#each open.absences as absence (absence.id)}
                            <div class="flex items-baseline gap-3 border-b border-ruled py-1.5">
                                <span class="figures">{day(localDay(absence.from))} – {lastDay(absence.until)}</span>
                                <span class="min-w-0 flex-1 truncate text-ink-2">
                                    {(absence.deputyId ?? open.deputyId)
                                        ? `${nameOf(absence.deputyId ?? open.deputyId)} stands in`
                                        : 'nobody stands in'}
                                </span>
                                {#if mayEnter}<button type="button" class="link" onclick={() => back(absence)}>Take back</button>{/if}
                            </div>
                        {:else}<p class="text-ink-3">None.</p>{/each}
                        {#if mayEnter}
                            <form
                                class="mt-3 flex flex-wrap items-end gap-2"
                                onsubmit={(event) => {
                                    event.preventDefault();
                                    void goAway();
                                }}
                            >
                                <label class="grid gap-0.5 text-[12px] text-ink-2"
                                    >From <DateField label="Away from" required bind:value={away.from} /></label
                                >
                                <label class="grid gap-0.5 text-[12px] text-ink-2"
                                    >to and with <DateField label="Away to" required min={away.from} bind:value={away.until} /></label
                                >
                                <label class="grid min-w-36 flex-1 gap-0.5 text-[12px] text-ink-2"
                                    >Deputy
                                    <Select placeholder="" bind:value={away.deputy}>
                                        <option value="">{open.deputyId ? nameOf(open.deputyId) : say('nobody')}</option>
                                        {#each others as person (person.id)}<option value={String(person.id)}>{person.name}</option>{/each}
                                    </Select>
                                </label>
                                <button class="btn">Enter</button>
                            </form>
                        {/if}
                    </div>
                {/if}
            {/key}
        {:else}
            <div class="empty">
                <h2>Who works here?</h2>
                <p>Choose a person to see what they may do, up to how much they may sign off, and who stands in for them.</p>
            </div>
        {/if}
    </section>
</div>
