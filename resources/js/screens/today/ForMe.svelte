<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import { moment } from '../../state/moments';
    import { clock } from '../../state/session.svelte';
    import SignOffsWait from './SignOffsWait.svelte';
    import SlipsWait from './SlipsWait.svelte';

    /* What else waits for a person: notes of rules, slips to answer, sign-offs. */
    let { today }: { today: Resources['TodayResource'] } = $props();
    const notes = createQuery(() => ({ queryKey: ['notes'], queryFn: () => ask(api.GET('/api/notes')), refetchInterval: 60_000 }));
    const slips = createQuery(() => ({
        queryKey: ['slips', 'mine'],
        queryFn: () => ask(api.GET('/api/slips', { params: { query: { box: 'mine', limit: 5 } } })),
        refetchInterval: 60_000,
    }));
    /** Older ones have been heard of, or are found on their record. */
    const FRESH = 14 * 86_400_000;
    const recent = $derived((notes.data ?? []).filter((note) => clock.now.getTime() - Date.parse(note.createdAt) < FRESH).slice(0, 6));
    const isQuiet = $derived(
        notes.data && !recent.length && slips.data?.slips.length === 0 && !today.signOffs.mine && !today.signOffs.waiting,
    );
</script>

<div class="grid gap-6">
    {#if recent.length}
        <div>
            <h2 class="mb-1">For you</h2>
            {#each recent as note (note.id)}
                <a
                    class="grid grid-cols-[92px_1fr] gap-2 border-b border-ruled py-1.5 text-[12.5px] hover:text-iris"
                    href="/records/{note.recordType}/{note.recordId}"
                >
                    <span class="figures mini">{moment(note.createdAt)}</span><span
                        ><b class="font-semibold">{note.subject}</b> <span class="text-ink-3">{note.recordTitle}</span></span
                    >
                </a>
            {/each}
        </div>
    {/if}
    {#if slips.data?.slips.length}<div><SlipsWait slips={slips.data.slips} /></div>{/if}
    {#if today.signOffs.mine || today.signOffs.waiting}<div><SignOffsWait load={today.signOffs} /></div>{/if}
    {#if isQuiet}
        <div>
            <h2 class="mb-1">For you</h2>
            <p class="text-[13px] text-ink-2">No note, no slip and no sign-off waits for you.</p>
        </div>
    {/if}
</div>
