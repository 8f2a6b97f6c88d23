<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { api, ask, said } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import Appearance from './Appearance.svelte';
    import LanguageChoice from './LanguageChoice.svelte';
    import NoticeWays from './NoticeWays.svelte';
    import Password from './Password.svelte';
    import SecondFactor from './SecondFactor.svelte';
    import SignIns from './SignIns.svelte';
    import Tokens from './Tokens.svelte';

    crumbs.set({ label: 'Your profile' });
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
                <p class="sub">{session.me?.email} · {session.me?.roleLabel} at {session.me?.company}</p>
            </div>
            <button type="button" class="btn ml-auto" onclick={() => session.signOut()}>Sign out</button>
        </header>
        <div class="scroll px-7 py-5">
            <div class="max-w-2xl">
                <div class="mb-8"><LanguageChoice /></div>
                <div class="mb-8"><Appearance /></div>
                <div class="mb-8"><NoticeWays /></div>
                <div class="mb-8"><Password /></div>
                <div class="mb-8"><SecondFactor /></div>
                <div class="mb-8"><SignIns /></div>
                <h2>Your tasks in a calendar</h2>
                <p class="mt-1 mb-2 text-[13px] text-ink-2">
                    An address that a calendar program reads your open tasks from. Whoever has it can read them, so keep it to yourself.
                </p>
                <div class="mb-7 flex flex-wrap gap-2">
                    <button type="button" class="btn" onclick={makeFeed}>{feed ? 'Create another' : 'Create an address'}</button>
                    <button type="button" class="btn quiet danger" onclick={revokeFeed}>Revoke the address</button>
                    {#if feed}<Input
                            class="figures text-[12px]"
                            readonly
                            value={feed}
                            aria-label="Address of the calendar"
                            onfocus={(event) => (event.target as HTMLInputElement).select()}
                        /><span class="mini">Copy it now; it is not shown again. An earlier one is no longer good.</span>{/if}
                </div>
                <Tokens />
            </div>
        </div>
    </section>
</div>
