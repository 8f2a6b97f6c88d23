<script lang="ts">
    import { Input, Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import { day, localDay, moment } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';
    import DateField from '../../parts/fields/DateField.svelte';

    const SCOPES = { reading: 'Only read', records: 'Work on records and tasks', '*': 'All that I may' } as const;
    type Scope = keyof typeof SCOPES;
    const client = useQueryClient();
    const tokens = createQuery(() => ({ queryKey: ['tokens'], queryFn: () => ask(api.GET('/api/tokens')) }));
    let name = $state('');
    let scope = $state<Scope>('reading');
    let until = $state('');
    let password = $state('');
    let problem = $state('');
    let made = $state<string | null>(null);

    async function make(event: SubmitEvent) {
        event.preventDefault();
        problem = '';
        try {
            const body = { name: name.trim(), password, scope, ...(until ? { until: `${until}T23:59:59Z` } : {}) };
            made = (await ask(api.POST('/api/tokens', { body }))).token;
            name = until = password = '';
        } catch (thrown) {
            problem = said(thrown);
        }
        void client.invalidateQueries({ queryKey: ['tokens'] });
    }

    async function revoke(id: number) {
        try {
            await ask(api.DELETE('/api/tokens/{id}', { params: { path: { id } } }));
            toasts.tell('The token works no more.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        void client.invalidateQueries({ queryKey: ['tokens'] });
    }
</script>

<h2>API tokens</h2>
<p class="mt-1 text-[13px] text-ink-2">
    A token lets a script use the same API as these screens. Send it as <span class="figures text-[12px]">Authorization: Bearer …</span>;
    the API is described in <span class="figures text-[12px]">docs/openapi.json</span>.
</p>
<form class="mt-3 grid gap-2 sm:grid-cols-2" onsubmit={make}>
    <label class="grid gap-0.5 text-[12px] text-ink-2">What is it for? <Input maxlength={80} required bind:value={name} /></label>
    <label class="grid gap-0.5 text-[12px] text-ink-2"
        >What may it do?
        <Select placeholder="" bind:value={scope}>
            {#each Object.entries(SCOPES) as [value, label] (value)}<option {value}>{label}</option>{/each}
        </Select></label
    >
    <label class="grid gap-0.5 text-[12px] text-ink-2">Good until <DateField label="Good until" bind:value={until} /></label>
    <label class="grid gap-0.5 text-[12px] text-ink-2"
        >Your password, once more
        <Input type="password" autocomplete="current-password" required bind:value={password} /></label
    >
    {#if problem}<p class="note-wrong sm:col-span-2" role="alert">{problem}</p>{/if}
    <div><button class="btn go">Create a token</button></div>
</form>
{#if made}
    <div class="callout mt-3" role="status">
        Copy it now; it is not shown again.
        <Input
            class="figures mt-1 text-[12px]"
            readonly
            value={made}
            aria-label="The new token"
            onfocus={(event) => (event.target as HTMLInputElement).select()}
        />
    </div>
{/if}
<div class="mt-4">
    {#each tokens.data ?? [] as token (token.id)}
        <div class="flex items-center gap-3 border-b border-ruled py-2 text-[13px]">
            <span class="min-w-0 flex-1"
                ><b class="block truncate font-medium">{token.name}</b><span class="mini"
                    >{SCOPES[token.scope as Scope]}{token.until ? `, until ${day(localDay(token.until))}` : ''}</span
                ></span
            >
            <span class="mini"
                >made {moment(token.createdAt)}, {token.lastUsedAt ? `last used ${moment(token.lastUsedAt)}` : 'never used'}</span
            >
            <button type="button" class="btn quiet danger" onclick={() => revoke(token.id)}>Revoke</button>
        </div>
    {:else}
        {#if tokens.data}<p class="text-[13px] text-ink-3">You have no tokens.</p>{/if}
    {/each}
</div>
