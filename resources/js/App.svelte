<script lang="ts">
    import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
    import { ThemeProvider } from 'flowbite-svelte';
    import { Router } from 'sv-router';
    import { afterChanges, Refusal } from './api/client';
    import { MediaQuery } from 'svelte/reactivity';
    import BottomBar from './parts/BottomBar.svelte';
    import Broken from './parts/Broken.svelte';
    import Dateline from './parts/Dateline.svelte';
    import Finder from './parts/Finder.svelte';
    import LeafSwitch from './parts/LeafSwitch.svelte';
    import Spine from './parts/Spine.svelte';
    import ToastStack from './parts/ToastStack.svelte';
    import { route } from './router';
    import SignIn from './screens/access/SignIn.svelte';
    import { session } from './state/session.svelte';
    import { tour } from './state/tour.svelte';
    import { mayChangeWaiting } from './state/waiting';
    import { theme } from './theme';

    const client = new QueryClient({
        defaultOptions: {
            queries: {
                refetchOnWindowFocus: true,
                staleTime: 2000,
                retry: (count, error) => count < 2 && error instanceof Refusal && error.problem.status === 0,
            },
        },
    });
    client.getQueryCache().subscribe((event) => {
        const error = event.query.state.error;
        if (error instanceof Refusal && [401, 419].includes(error.problem.status)) session.me = null;
    });

    afterChanges((path) => {
        // What waits for somebody is changed by what is done to records and to what is asked about them;
        if (mayChangeWaiting(path)) void client.invalidateQueries({ queryKey: ['waiting'] });
        // and what a record type says of its rules, by putting one in force or out of it.
        if (/^\/api\/rules\/\d+\/(publish|status)$/.test(path)) void session.refreshSchema();
    });

    // A screen that broke is tried again when somebody goes elsewhere.
    let again: (() => void) | null = null;
    $effect(() => {
        void route.pathname;
        again?.();
        again = null;
    });

    /* Whoever comes from a letter need not be signed in. */
    const token = $derived(/^\/decide\/([a-z0-9-]+)$/i.exec(route.pathname)?.[1]);
    const welcome = $derived(/^\/welcome\/([\w-]+)$/i.exec(route.pathname)?.[1]);
    /** As wide as a phone is, held upright. */
    const phone = new MediaQuery('max-width: 640px');
    let finding = $state(false);
    let asksKeys = $state(false);

    function shortcut(event: KeyboardEvent) {
        if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
            event.preventDefault();
            finding = !finding;
        } else if (event.key === '?' && !(event.target as HTMLElement).matches('input, textarea, select, [contenteditable=true]'))
            asksKeys = true;
    }
</script>

<svelte:window onkeydown={shortcut} />

<ThemeProvider {theme}>
    <QueryClientProvider {client}>
        {#if token}
            {#await import('./screens/signoffs/DecideScreen.svelte') then { default: DecideScreen }}<DecideScreen {token} />{/await}
        {:else if welcome}
            {#await import('./screens/access/WelcomeScreen.svelte') then { default: WelcomeScreen }}<WelcomeScreen
                    token={welcome}
                />{/await}
        {:else if session.me}
            <div class="app">
                {#if !phone.current}<Spine />{/if}
                <div class="main">
                    <Dateline onfind={() => (finding = true)} />
                    <main>
                        <svelte:boundary onerror={(_error, reset) => (again = reset)}>
                            <Router />
                            {#snippet failed(_error, reset)}
                                <div class="spread">
                                    <section class="leaf solo"><div class="scroll"><Broken what="screen" again={reset} /></div></section>
                                </div>
                            {/snippet}
                        </svelte:boundary>
                    </main>
                </div>
            </div>
            {#if phone.current}
                <LeafSwitch />
                <BottomBar />
            {/if}
            {#if asksKeys && session.me}
                {#await import('./parts/KeysHelp.svelte') then { default: KeysHelp }}<KeysHelp onclose={() => (asksKeys = false)} />{/await}
            {/if}
            {#if tour.at !== null}
                {#await import('./parts/TourCard.svelte') then { default: TourCard }}<TourCard
                        nav={() => document.querySelector('nav.spine, nav.bottom-bar')}
                    />{/await}
            {/if}
            {#if finding}<Finder onclose={() => (finding = false)} />{/if}
        {:else if session.ready}
            <SignIn />
        {/if}
        <ToastStack />
    </QueryClientProvider>
</ThemeProvider>
