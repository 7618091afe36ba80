import { BrowserRouter, Navigate, Route, Routes, useLocation, useParams } from 'react-router';
import { SignedIn } from '../features/people/index.ts';
import { NotHere, SiteFrame } from '../features/frame/index.ts';
import { StartPage } from '../features/sites/index.ts';

export function App() {
  return (
    <BrowserRouter>
      <SignedIn>
        <Routes>
          <Route path="/" element={<StartPage />} />
          <Route path="/sites/:siteId" element={<ToSurvey />} />
          <Route path="/sites/:siteId/:station" element={<SiteFrame />} />
          <Route path="*" element={<Nowhere />} />
        </Routes>
      </SignedIn>
    </BrowserRouter>
  );
}

function Nowhere() {
  const { pathname } = useLocation();
  return <NotHere what={`There is nothing at ${pathname}.`} to="/" way="To the sites" />;
}

function ToSurvey() {
  const { siteId } = useParams();
  return <Navigate to={`/sites/${siteId}/survey`} replace />;
}
