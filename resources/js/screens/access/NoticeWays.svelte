<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { Select } from 'flowbite-svelte';
    import { api, ask, said, type Resources } from '../../api/client';
    import { toasts } from '../../state/toasts.svelte';

    /* By which way one hears of what happens for one. */
    type Way = Resources['NoticeWayResource']['way'];
    const client = useQueryClient();
    const ways = createQuery(() => ({ queryKey: ['notice-ways'], queryFn: () => ask(api.GET('/api/notices/ways')) }));
    const labels: [Way, string][] = [
        ['bell', 'The bell alone'],
        ['letter', 'A letter at once'],
        ['morning', 'In the letter of the morning'],
    ];

    async function choose(kind: Resources['NoticeWayResource']['kind'], way: string) {
        try {
            client.setQueryData(['notice-ways'], await ask(api.PUT('/api/notices/ways', { body: { [kind]: way as Way } })));
            toasts.tell('From now on it comes that way.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<h2>Notifications</h2>
<p class="mt-1 mb-2 text-[13px] text-ink-2">
    The bell tells you everything. What else there is to be: a letter at once, or one letter at eight on the morning of a working day.
</p>
<div class="grid max-w-md gap-1.5">
    {#each ways.data ?? [] as one (one.kind)}
        <label class="grid grid-cols-[1fr_220px] items-center gap-3 text-[13.5px]">
            {one.label}
            <Select
                placeholder=""
                value={one.way}
                items={labels.map(([value, name]) => ({ value, name }))}
                onchange={(event: Event) => choose(one.kind, (event.currentTarget as HTMLSelectElement).value)}
            />
        </label>
    {/each}
</div>
