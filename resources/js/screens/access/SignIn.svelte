<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import { api, ask, Refusal, said } from '../../api/client';
    import { session } from '../../state/session.svelte';

    let email = $state('');
    let password = $state('');
    let code = $state('');
    let wantsCode = $state(false);
    let problem = $state('');
    let told = $state('');
    let busy = $state(false);
    let hasCompany = $state(true);
    onMount(async () => (hasCompany = (await ask(api.GET('/api/door')).catch(() => ({ hasCompany: true }))).hasCompany));

    async function signIn(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        problem = told = '';
        try {
            await session.signIn(email.trim(), password, wantsCode ? code : undefined);
        } catch (thrown) {
            const isFirst = thrown instanceof Refusal && thrown.problem.code === 'code_wanted' && !wantsCode;
            if (thrown instanceof Refusal && thrown.at('/code')) wantsCode = true;
            problem = isFirst ? '' : said(thrown);
        }
        busy = false;
    }

    async function forgotten() {
        problem = told = '';
        if (!email.trim()) {
            problem = 'Give your e-mail address first.';
            return;
        }
        try {
            await ask(api.POST('/api/password/forgotten', { body: { email: email.trim() } }));
            told = `If ${email.trim()} is known here, a letter with a link is on its way.`;
        } catch (thrown) {
            problem = said(thrown);
        }
    }
</script>

<div class="grid h-full place-items-center">
    <form class="leaf solo w-[380px]" onsubmit={signIn}>
        <div class="p-8">
            <div class="flex items-center gap-3">
                <img src="/mark.svg" alt="" class="h-11 w-11 rounded-md border border-edge" />
                <h1>Vivid Ledger</h1>
            </div>
            {#if hasCompany}
                <p class="sub mt-4">Rules you can rehearse, watch and explain.</p>
                <label class="mt-6 block text-[12.5px] font-semibold" for="email">E-mail address</label>
                <Input id="email" class="mt-1" type="email" autocomplete="username" required autofocus bind:value={email} />
                <label class="mt-4 block text-[12.5px] font-semibold" for="password">Password</label>
                <Input
                    id="password"
                    class="mt-1"
                    aria-invalid={problem !== '' && !wantsCode ? true : undefined}
                    type="password"
                    autocomplete="current-password"
                    required
                    bind:value={password}
                />
                {#if wantsCode}
                    <label class="mt-4 block text-[12.5px] font-semibold" for="code">Code of your authenticator application</label>
                    <Input
                        id="code"
                        class="figures mt-1"
                        aria-invalid={problem !== '' ? true : undefined}
                        autocomplete="one-time-code"
                        required
                        autofocus
                        maxlength={20}
                        bind:value={code}
                    />
                    <p class="mini mt-1">Or one of your recovery codes.</p>
                {/if}
                {#if problem}<p class="note-wrong mt-1" role="alert">{problem}</p>{/if}
                {#if told}<p class="callout mt-3" role="status">{told}</p>{/if}
                <button class="btn go mt-6 w-full py-2" disabled={busy}>{busy ? 'Signing in…' : 'Sign in'}</button>
                <button type="button" class="link mt-4 block w-full text-center text-[12.5px]" onclick={forgotten}
                    >I do not know my password</button
                >
            {:else}
                <p class="sub mt-4">There is no company here yet.</p>
                <p class="mt-3 text-[13.5px]">
                    Open the link that the server printed when it started. It is printed again by
                    <span class="figures text-[12px]">php artisan company:link</span>.
                </p>
            {/if}
        </div>
    </form>
</div>
