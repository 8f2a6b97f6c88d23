<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, Refusal, said } from '../../api/client';
    import { toasts } from '../../state/toasts.svelte';

    const client = useQueryClient();
    let current = $state('');
    let password = $state('');
    let refusal = $state.raw<Refusal | null>(null);

    async function change(event: SubmitEvent) {
        event.preventDefault();
        refusal = null;
        try {
            await ask(api.PUT('/api/password', { body: { current, password } }));
            current = password = '';
            toasts.tell('Saved. Everywhere else you are signed out, and your API tokens have ended.');
            void client.invalidateQueries({ queryKey: ['sign-ins'] });
        } catch (thrown) {
            if (thrown instanceof Refusal) refusal = thrown;
            else toasts.complain(said(thrown));
        }
    }
</script>

<h2>Password</h2>
<p class="sub">Another one signs you out everywhere else, and ends your API tokens and the address of your calendar.</p>
<form class="mt-2 grid gap-2 sm:grid-cols-2" onsubmit={change}>
    <label class="grid content-start gap-0.5 text-[12px] text-ink-2"
        >Current password
        <Input type="password" autocomplete="current-password" required bind:value={current} />
        {#if refusal?.at('/current')}<span class="note-wrong" role="alert">{refusal.at('/current')}</span>{/if}</label
    >
    <label class="grid content-start gap-0.5 text-[12px] text-ink-2"
        >New password
        <Input type="password" autocomplete="new-password" required bind:value={password} />
        {#if refusal?.at('/password')}<span class="note-wrong" role="alert">{refusal.at('/password')}</span>{/if}</label
    >
    {#if refusal && !refusal.problem.problems.length}<p class="note-wrong sm:col-span-2" role="alert">{refusal.message}</p>{/if}
    <div><button class="btn">Change the password</button></div>
</form>
