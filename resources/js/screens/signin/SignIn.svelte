<script lang="ts">
    import { said } from '../../api/client';
    import { session } from '../../state/session.svelte';

    let email = $state('');
    let password = $state('');
    let problem = $state('');
    let busy = $state(false);

    async function signIn(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        problem = '';
        try {
            await session.signIn(email.trim(), password);
        } catch (thrown) {
            problem = said(thrown);
        }
        busy = false;
    }
</script>

<div class="grid h-full place-items-center">
    <form class="leaf solo w-[380px]" onsubmit={signIn}>
        <div class="p-8">
            <div class="flex items-center gap-3">
                <img src="/mark.svg" alt="" class="h-11 w-11 rounded-md border border-edge" />
                <h1>Vivid Ledger</h1>
            </div>
            <p class="sub mt-4">Rules you can rehearse, watch and explain.</p>
            <label class="mt-6 block text-[12.5px] font-semibold" for="email">E-mail address</label>
            <!-- svelte-ignore a11y_autofocus -->
            <input id="email" class="input mt-1" type="email" autocomplete="username" required autofocus bind:value={email} />
            <label class="mt-4 block text-[12.5px] font-semibold" for="password">Password</label>
            <input
                id="password"
                class="input mt-1"
                class:bad={problem !== ''}
                type="password"
                autocomplete="current-password"
                required
                bind:value={password}
            />
            {#if problem}<p class="note-wrong mt-1" role="alert">{problem}</p>{/if}
            <button class="btn go mt-6 w-full py-2" disabled={busy}>{busy ? 'Signing in…' : 'Sign in'}</button>
        </div>
    </form>
</div>
