<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';

    crumbs.set({ label: 'Your profile' });
    const client = useQueryClient();
    const tokens = createQuery(() => ({ queryKey: ['tokens'], queryFn: () => ask(api.GET('/api/tokens')) }));
    let name = $state('');
    let made = $state<string | null>(null);

    async function make(event: SubmitEvent) {
        event.preventDefault();
        try {
            made = (await ask(api.POST('/api/tokens', { body: { name: name.trim() } }))).token;
            name = '';
        } catch (thrown) {
            toasts.complain(said(thrown));
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
    let feed = $state('');

    async function makeFeed() {
        try {
            feed = (await ask(api.POST('/api/feed'))).url;
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    async function revokeFeed() {
        try {
            await ask(api.DELETE('/api/feed'));
            feed = '';
            toasts.tell('The address is no longer good.');
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }
</script>

<div class="spread">
    <section class="leaf solo">
        <header class="flex items-start gap-3">
            <div>
                <h1>{session.me?.name}</h1>
                <p class="sub">{session.me?.email} · {session.me?.role} at {session.me?.company}</p>
            </div>
            <button type="button" class="btn ml-auto" onclick={() => session.signOut()}>Sign out</button>
        </header>
        <div class="scroll px-7 py-5">
            <div class="max-w-2xl">
                <h2>Your tasks in a calendar</h2>
                <p class="mt-1 mb-2 text-[13px] text-ink-2">
                    An address that a calendar program reads your open tasks from. Whoever has it can read them, so keep it to yourself.
                </p>
                <div class="mb-7 flex flex-wrap gap-2">
                    <button type="button" class="btn" onclick={makeFeed}>{feed ? 'Make another' : 'Make an address'}</button>
                    <button type="button" class="btn quiet danger" onclick={revokeFeed}>Revoke the address</button>
                    {#if feed}<input
                            class="input figures text-[12px]!"
                            readonly
                            value={feed}
                            aria-label="Address of the calendar"
                            onfocus={(event) => event.currentTarget.select()}
                        /><span class="mini">Copy it now; it is not shown again. An earlier one is no longer good.</span>{/if}
                </div>
                <h2>API tokens</h2>
                <p class="mt-1 text-[13px] text-ink-2">
                    A token lets a script use the same API as these screens, with your role. Send it as <span class="figures text-[12px]"
                        >Authorization: Bearer …</span
                    >; the API is described in
                    <span class="figures text-[12px]">docs/openapi.json</span>.
                </p>
                <form class="mt-3 flex gap-2" onsubmit={make}>
                    <input
                        class="input max-w-xs"
                        placeholder="What is it for?"
                        aria-label="What the token is for"
                        maxlength="80"
                        required
                        bind:value={name}
                    />
                    <button class="btn go">Make a token</button>
                </form>
                {#if made}
                    <div class="callout mt-3" role="status">
                        Copy it now; it is not shown again.
                        <input
                            class="input figures mt-1 text-[12px]!"
                            readonly
                            value={made}
                            aria-label="The new token"
                            onfocus={(event) => event.currentTarget.select()}
                        />
                    </div>
                {/if}
                <div class="mt-4">
                    {#each tokens.data ?? [] as token (token.id)}
                        <div class="flex items-center gap-3 border-b border-ruled py-2 text-[13px]">
                            <span class="flex-1 font-medium">{token.name}</span>
                            <span class="mini"
                                >made {moment(token.createdAt)}, {token.lastUsedAt
                                    ? `last used ${moment(token.lastUsedAt)}`
                                    : 'never used'}</span
                            >
                            <button type="button" class="btn quiet danger" onclick={() => revoke(token.id)}>Revoke</button>
                        </div>
                    {:else}
                        {#if tokens.data}<p class="text-[13px] text-ink-3">You have no tokens.</p>{/if}
                    {/each}
                </div>
            </div>
        </div>
    </section>
</div>
