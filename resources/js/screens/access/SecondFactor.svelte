<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { renderSVG } from 'uqr';
    import { api, ask, said, type Resources } from '../../api/client';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';

    let begun = $state.raw<Resources['SecondFactorResource'] | null>(null);
    let codes = $state.raw<string[]>([]);
    let ending = $state(false);
    let code = $state('');
    let password = $state('');
    let problem = $state('');
    const has = $derived(session.me?.hasSecondFactor ?? false);
    const spaced = $derived(begun?.secret.replaceAll(/(.{4})(?=.)/g, '$1 ') ?? '');

    async function run(act: () => Promise<void>) {
        problem = '';
        try {
            await act();
            code = password = '';
            await session.begin();
        } catch (thrown) {
            problem = said(thrown);
        }
    }

    const begin = () => run(async () => void (begun = await ask(api.POST('/api/second-factor/begin'))));
    const takeUp = () =>
        run(async () => {
            codes = (await ask(api.POST('/api/second-factor', { body: { secret: begun?.secret ?? '', code, password } }))).codes;
            begun = null;
        });
    const giveUp = () =>
        run(async () => {
            await ask(api.DELETE('/api/second-factor', { body: { password } }));
            [ending, codes] = [false, []];
            toasts.tell('Your password is enough from now on.');
        });

    function submit(event: SubmitEvent) {
        event.preventDefault();
        void (begun ? takeUp() : giveUp());
    }
</script>

<h2>Second factor</h2>
<p class="mt-1 text-[13px] text-ink-2">
    {has
        ? `Signing in asks for a code of your authenticator application as well. ${session.me?.recoveryCodes} recovery codes are left.`
        : 'Let signing in ask for a code of an authenticator application as well: then a password that got out is not enough.'}
</p>
{#if codes.length}
    <div class="callout mt-3" role="status">
        Ten codes for the day you lose your telephone, each good once. They are not shown again: keep them where it is safe.
        <ul class="figures mt-2 grid grid-cols-2 gap-x-6 gap-y-1 text-[13px] sm:grid-cols-5">
            {#each codes as one (one)}<li>{one}</li>{/each}
        </ul>
    </div>
{/if}
{#if begun || ending}
    <form class="mt-3 grid gap-4 {begun ? 'sm:grid-cols-[164px_1fr]' : ''}" onsubmit={submit}>
        {#if begun}
            <div class="h-40 w-40 rounded-lg border border-edge bg-white p-1 [&>svg]:h-full [&>svg]:w-full">
                <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn here from what the server told -->
                {@html renderSVG(begun.uri, { border: 1 })}
            </div>
        {/if}
        <div class="grid content-start gap-2">
            {#if begun}
                <p class="text-[13px]">Let your application read the picture, or type <b class="figures text-[12px]">{spaced}</b>.</p>
                <label class="grid gap-0.5 text-[12px] text-ink-2"
                    >The code it shows
                    <Input
                        class="figures max-w-40"
                        inputmode="numeric"
                        autocomplete="one-time-code"
                        maxlength={10}
                        required
                        bind:value={code}
                    /></label
                >
            {/if}
            <label class="grid gap-0.5 text-[12px] text-ink-2"
                >Your password, once more
                <Input class="max-w-72" type="password" autocomplete="current-password" required bind:value={password} /></label
            >
            {#if problem}<p class="note-wrong" role="alert">{problem}</p>{/if}
            <div class="flex gap-2">
                <button class="btn go">{begun ? 'Ask for codes from now on' : 'Take it away'}</button>
                <button type="button" class="btn quiet" onclick={() => ((begun = null), (ending = false), (problem = ''))}>Not now</button>
            </div>
        </div>
    </form>
{:else}
    <div class="mt-2 flex gap-2">
        <button type="button" class="btn" onclick={begin}>{has ? 'Use another application' : 'Set it up'}</button>
        {#if has}<button type="button" class="btn quiet danger" onclick={() => (ending = true)}>Take it away</button>{/if}
    </div>
    {#if problem}<p class="note-wrong mt-1" role="alert">{problem}</p>{/if}
{/if}
