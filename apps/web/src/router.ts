import { createRouter, createWebHistory } from 'vue-router';
import { OfflineError } from './sync/api.ts';
import { useSession } from './stores/session.ts';
import EnterScreen from './screens/enter-screen.vue';
import ShelfScreen from './screens/shelf-screen.vue';

/** Fetched before it is needed: it is read without a server too. */
const help = () => import('./screens/help-screen.vue');
addEventListener('load', () => setTimeout(() => void help(), 1000));

/** Screens of a project come in chunks of their own: the shelf loads neither kernel nor view. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: ShelfScreen },
    { path: '/account', name: 'account', component: () => import('./screens/account-screen.vue') },
    { path: '/enter', name: 'enter', component: EnterScreen, meta: { open: true } },
    { path: '/help', name: 'help', component: help, meta: { open: true } },
    {
      path: '/project/:id',
      component: () => import('./screens/project-frame.vue'),
      children: [
        { path: '', name: 'bench', component: () => import('./screens/bench-screen.vue') },
        { path: 'values', name: 'values', component: () => import('./screens/values-screen.vue') },
        { path: 'motion', name: 'motion', component: () => import('./screens/motion-screen.vue') },
        { path: 'sheets', name: 'sheets', component: () => import('./screens/sheets-screen.vue') },
        { path: 'checks', name: 'checks', component: () => import('./screens/checks-screen.vue') },
        { path: 'output', name: 'output', component: () => import('./screens/output-screen.vue') },
      ],
    },
    { path: '/:rest(.*)', redirect: { name: 'shelf' } },
  ],
});

router.beforeEach(async (to) => {
  if (to.meta['open']) return true;
  let name: string | undefined;
  try {
    name = await useSession().look();
  } catch (error) {
    // nobody was signed out: the screen says that the server is away
    if (error instanceof OfflineError) return true;
    throw error;
  }
  return name === undefined ? { name: 'enter', query: to.fullPath === '/' ? {} : { to: to.fullPath } } : true;
});
