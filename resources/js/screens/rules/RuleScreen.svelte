<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import { route } from '../../router';
    import { crumbs } from '../../state/crumbs.svelte';
    import RuleSpread from './RuleSpread.svelte';

    const client = useQueryClient();
    const id = $derived(Number(route.params.id));
    const rule = createQuery(() => ({
        queryKey: ['rule', id],
        staleTime: Infinity,
        gcTime: 0, // What is kept while one writes is on the server; who comes back reads it there.
        refetchOnWindowFocus: false,
        queryFn: () => ask(api.GET('/api/rules/{id}', { params: { path: { id } } })),
    }));
    // The page is drawn anew only where it is another page: a fetch in the background must not cost what is being written.
    let reloaded = $state(0);
    $effect(() => {
        if (!rule.data) crumbs.set({ label: 'Rules', to: '/rules' });
    });

    function changed(next: Resources['RuleResource']) {
        client.setQueryData(['rule', id], next);
        void client.invalidateQueries({ queryKey: ['rules'] });
        void client.invalidateQueries({ queryKey: ['pages', id] });
    }

    async function reload() {
        await rule.refetch();
        reloaded++;
    }
</script>

{#if rule.data}
    {#key `${rule.data.id}:${rule.data.page}:${rule.data.status}:${reloaded}`}
        <RuleSpread rule={rule.data} onchange={changed} onreload={reload} />
    {/key}
{:else}
    <div class="spread">
        <section class="leaf solo"><div class="empty">{rule.isError ? said(rule.error) : 'Opening the rule…'}</div></section>
    </div>
{/if}
