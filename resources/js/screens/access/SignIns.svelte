<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import { moment } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';

    const client = useQueryClient();
    const signIns = createQuery(() => ({ queryKey: ['sign-ins'], queryFn: () => ask(api.GET('/api/sign-ins')) }));

    async function end(mark: string) {
        try {
            await ask(api.DELETE('/api/sign-ins/{mark}', { params: { path: { mark } } }));
            toasts.tell('Signed out there.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        void client.invalidateQueries({ queryKey: ['sign-ins'] });
    }

    /** "Firefox on Linux", as far as a browser tells. */
    function called(browser: string): string {
        const name = /(Firefox|Edg|OPR|Chrome|Safari)\//.exec(browser)?.[1];
        const system = /(Windows|Android|iPhone|iPad|Mac OS|Linux)/.exec(browser)?.[1];
        const known = { Edg: 'Edge', OPR: 'Opera' }[name ?? ''] ?? name;
        return known ? `${known}${system ? ` on ${system}` : ''}` : browser.slice(0, 60) || 'Another program';
    }
</script>

<h2>Where you are signed in</h2>
<div class="mt-1">
    {#each signIns.data ?? [] as one (one.mark)}
        <div class="flex items-center gap-3 border-b border-ruled py-2 text-[13px]">
            <span class="min-w-0 flex-1 truncate font-medium">{called(one.browser)}</span>
            <span class="mini figures">{one.address}</span>
            <span class="mini w-32 text-right">{one.isThis ? 'here and now' : moment(one.lastUsedAt)}</span>
            {#if one.isThis}<span class="w-20"></span>
            {:else}<button type="button" class="btn quiet danger w-20" onclick={() => end(one.mark)}>Sign out</button>{/if}
        </div>
    {/each}
</div>
