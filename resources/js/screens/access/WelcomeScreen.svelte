<script lang="ts">
    import { createQuery } from '@tanstack/svelte-query';
    import { api, ask, said } from '../../api/client';
    import ChoosePassword from './ChoosePassword.svelte';
    import OpenCompany from '../setup/OpenCompany.svelte';

    /* Where a letter, or whoever runs the server, leads somebody who has no password yet. */
    let { token }: { token: string } = $props();
    const welcome = createQuery(() => ({
        queryKey: ['welcome', token],
        queryFn: () => ask(api.GET('/api/welcome/{token}', { params: { path: { token } } })),
        retry: false,
        refetchOnWindowFocus: false,
    }));
</script>

<main class="h-full overflow-auto p-4 sm:pt-12">
    <div class="leaf solo mx-auto h-auto! {welcome.data?.kind === 'begin' ? 'max-w-[640px]' : 'max-w-[440px]'}">
        <div class="p-6 sm:p-8">
            <div class="mb-5 flex items-center gap-3">
                <img src="/mark.svg" alt="" class="h-9 w-9 rounded-md border border-edge" />
                <span class="text-[13px] text-ink-2">Vivid Ledger</span>
            </div>
            {#if welcome.data}
                {#if welcome.data.kind === 'begin'}<OpenCompany {token} welcome={welcome.data} />
                {:else}<ChoosePassword {token} welcome={welcome.data} />{/if}
            {:else if welcome.isError}
                <h1 class="text-[24px]!">This link does not open</h1>
                <p class="sub mt-3">{said(welcome.error)}</p>
                <a class="btn mt-5 inline-block" href="/">To sign-in</a>
            {:else}<p class="sub">Reading…</p>{/if}
        </div>
    </div>
</main>
