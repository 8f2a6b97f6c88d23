<script lang="ts">
    import { inFigures } from '../../state/numbers';
    import { Input } from 'flowbite-svelte';
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Stamp from '../../parts/Stamp.svelte';
    import { SHORT } from './roles';
    import { session } from '../../state/session.svelte';
    import { say, within } from '../../state/words';

    /* What somebody may see and do, and why: with all records, and with one. */
    let { person }: { person: Resources['PersonResource'] } = $props();
    const may = createQuery(() => ({
        queryKey: ['may', person.id, person.role, person.team, person.managerId],
        queryFn: () => ask(api.GET('/api/people/{id}/may', { params: { path: { id: person.id } } })),
    }));
    let number = $state('');
    let asked = $state.raw<{ number: string; acts: Resources['MayActResource'][] } | null>(null);
    let problem = $state('');
    const seen = $derived((may.data?.types ?? []).filter((type) => type.acts[0]?.may));
    const unseen = $derived((may.data?.types ?? []).filter((type) => !type.acts[0]?.may));
    const some = (names: string[]) =>
        names.length > 6 ? `${names.slice(0, 6).join(', ')} and ${names.length - 6} more` : names.join(', ');

    async function ask_(event: SubmitEvent) {
        event.preventDefault();
        [asked, problem] = [null, ''];
        const [, prefix, digits] = /^\s*([A-Za-z]+)-?(\d+)\s*$/.exec(number) ?? [];
        const type = session.schema?.types.find((one) => one.prefix.toLowerCase() === prefix?.toLowerCase());
        if (!type || !digits) {
            problem = 'Give the number of a record, such as T-0042.';
            return;
        }
        try {
            const path = { id: person.id, type: type.name, number: Number(digits) };
            asked = {
                number: `${type.prefix}-${digits.padStart(4, '0')}`,
                acts: await ask(api.GET('/api/people/{id}/may/{type}/{number}', { params: { path } })),
            };
        } catch (thrown) {
            problem = said(thrown);
        }
    }
</script>

{#if may.data}
    <p class="mb-3">
        {person.name} is <b>{may.data.role}</b>. <a class="link" href="/setup/roles">What the role says</a>
    </p>
    <h3 class="mb-1 font-semibold">One record</h3>
    <form class="flex gap-2" onsubmit={ask_}>
        <Input class="figures w-36!" aria-label="Number of a record" placeholder="T-0042" bind:value={number} />
        <button class="btn">May they?</button>
    </form>
    {#if problem}<p class="note-wrong mt-1" role="alert">{problem}</p>{/if}
    {#each asked?.acts ?? [] as act (act.act)}
        <div class="flex items-baseline gap-3 border-b border-ruled py-1.5">
            <Stamp tone={act.may ? 'fern' : 'madder'}>{act.may ? say('yes') : say('no')}</Stamp>
            <span class="min-w-0 flex-1"><b class="font-medium">{act.label}</b> <span class="text-ink-2">{act.why}</span></span>
        </div>
    {/each}
    <h3 class="mt-5 mb-1 font-semibold">All records</h3>
    <div class="rights tight" role="group" aria-label="Whose records">
        <span></span>{#each seen[0]?.acts ?? [] as act (act.act)}<span class="mini" title={act.label}>{SHORT[act.act] ?? act.label}</span
            >{/each}<span class="mini text-right">sees</span>
        {#each seen as type (type.type)}
            <b class="truncate font-medium">{type.plural}</b>
            {#each type.acts as act (act.act)}<span class="reach {act.reach}" title="{act.label}: {act.why}"
                    >{SHORT[act.reach] ?? act.why}</span
                >{/each}
            <span class="figures text-right text-[11px] text-ink-2" title="of {inFigures(type.all)}">{inFigures(type.seen)}</span>
        {/each}
    </div>
    {#each seen as type (type.type)}
        {#if type.hidden.length}<p class="mt-1 text-[12.5px] text-madder">
                Hidden of {within(type.plural)}: {type.hidden.join(', ')}
            </p>{/if}
        {#if type.readOnly.length}<p class="mt-1 text-[12.5px] text-marigold">
                Seen, not changed, of {within(type.plural)}: {type.readOnly.join(', ')}
            </p>{/if}
    {/each}
    {#if unseen.length}<p class="mt-2 text-ink-2">Sees nothing of {unseen.map((type) => within(type.plural)).join(', ')}.</p>{/if}
    <h3 class="mt-5 mb-1 font-semibold">Who is around them</h3>
    <p class="text-ink-2">
        {may.data.team.length ? `In ${person.team}: ${some(may.data.team)}.` : 'Nobody else is in their team.'}
        {may.data.below.length ? `Works for them: ${some(may.data.below)}.` : 'Nobody works for them.'}
    </p>
    {#if may.data.duties.length}
        <h3 class="mt-5 mb-1 font-semibold">Trusted with</h3>
        {#each may.data.duties as duty (duty)}<p class="border-b border-ruled py-1">{duty}</p>{/each}
    {/if}
{:else if may.isError}<p class="callout bad" role="alert">{said(may.error)}</p>{/if}
