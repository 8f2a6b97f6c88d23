<script lang="ts">
    import { isWide } from '../../state/places';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import RoleEditor from './RoleEditor.svelte';
    import { glance } from './roles';
    import { counted } from '../../state/words';

    /* Roles: what everybody who has one may see and do. */
    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Roles' });
    const client = useQueryClient();
    const roles = createQuery(() => ({ queryKey: ['roles'], queryFn: () => ask(api.GET('/api/roles')) }));
    let chosen = $state<string | null>(null);
    const role = $derived(roles.data?.roles.find((one) => one.name === chosen) ?? null);
    $effect(() => {
        if (chosen === null && roles.data && isWide()) chosen = roles.data.roles[0]?.name ?? null;
    });

    async function kept(name: string | null, told: string) {
        await client.invalidateQueries({ queryKey: ['roles'] });
        chosen = name;
        toasts.tell(told);
    }
</script>

<div class="spread grid-cols-[minmax(0,4fr)_minmax(0,7fr)]">
    <section class="leaf left">
        <header class="flex items-start gap-3">
            <div class="min-w-0 flex-1">
                <h1>Roles</h1>
                <p class="sub">What each may see and do.</p>
            </div>
            {#if session.has('keep_house')}<button type="button" class="btn go" onclick={() => (chosen = '')}>New role</button>{/if}
        </header>
        <div class="scroll">
            {#each roles.data?.roles ?? [] as one (one.name)}
                <button
                    type="button"
                    class="grid w-full grid-cols-[1fr_auto] items-baseline gap-x-3 border-b border-ruled px-7 py-2.5 text-left"
                    class:bg-picked={one.name === chosen}
                    aria-pressed={one.name === chosen}
                    onclick={() => (chosen = one.name)}
                >
                    <b class="font-semibold">{one.label}</b>
                    <span class="figures mini">{counted(one.people, ['# person', '# people'])}</span>
                    <span class="col-span-2 text-[12.5px] text-ink-2">{roles.data ? glance(one, roles.data) : ''}</span>
                </button>
            {/each}
        </div>
    </section>
    <section class="leaf right">
        {#if roles.data && chosen !== null && (role || chosen === '')}
            {#key `${chosen} ${role?.version}`}
                <RoleEditor offers={roles.data} {role} onkept={kept} oncancel={() => (chosen = null)} />
            {/key}
        {:else}
            <div class="empty">
                <h2>Who may do what?</h2>
                <p>
                    Choose a role to see whose records it reaches. What one person may, and why, stands with <a
                        class="link"
                        href="/setup/people">people</a
                    >.
                </p>
            </div>
        {/if}
    </section>
</div>
