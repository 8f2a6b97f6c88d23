<script lang="ts">
    import { Checkbox, Input } from 'flowbite-svelte';
    import { api, ask, Refusal, said, type Resources } from '../../api/client';

    let { token, welcome }: { token: string; welcome: Resources['WelcomeResource'] } = $props();
    let password = $state('');
    let shown = $state(false);
    let problem = $state('');
    let busy = $state(false);

    async function choose(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        problem = '';
        try {
            await ask(api.POST('/api/welcome/{token}', { params: { path: { token } }, body: { password } }));
            location.assign('/');
        } catch (thrown) {
            problem = (thrown instanceof Refusal ? thrown.at('/password') : undefined) ?? said(thrown);
            busy = false;
        }
    }
</script>

<h1 class="text-[24px]!">{welcome.kind === 'invite' ? `Welcome, ${welcome.name.split(' ')[0]}` : 'Choose another password'}</h1>
<p class="sub mt-2">
    {welcome.kind === 'invite'
        ? `${welcome.company} invites you. Choose a password, and you are in.`
        : 'Wherever you are signed in now, you are signed out.'}
</p>
<form class="mt-5" onsubmit={choose}>
    <input type="email" class="sr-only" autocomplete="username" value={welcome.email} readonly tabindex="-1" aria-label="E-mail address" />
    <label class="block text-[12.5px] font-semibold" for="password">Password for {welcome.email}</label>
    <Input
        id="password"
        class="mt-1"
        aria-invalid={problem !== '' ? true : undefined}
        type={shown ? 'text' : 'password'}
        autocomplete="new-password"
        required
        minlength={welcome.least}
        autofocus
        aria-describedby="password-note"
        bind:value={password}
    />
    <p id="password-note" class="mini mt-1">At least {welcome.least} characters. A few words in a row do well.</p>
    {#if problem}<p class="note-wrong mt-1" role="alert">{problem}</p>{/if}
    <label class="mt-3 flex items-center gap-2 text-[13px]"><Checkbox class="h-4 w-4" bind:checked={shown} /> Show it</label>
    <button class="btn go mt-5 w-full py-2" disabled={busy}>{busy ? 'Signing in…' : welcome.kind === 'invite' ? 'Sign in' : 'Save'}</button>
</form>
