import { BrowserRouter, Navigate, Route, Routes, useParams } from 'react-router';
import { SiteFrame } from '../features/frame/index.ts';
import { StartPage } from '../features/sites/index.ts';

export function App() {
  return (
    <BrowserRouter>
      <Routes>
        <Route path="/" element={<StartPage />} />
        <Route path="/sites/:siteId" element={<ToSurvey />} />
        <Route path="/sites/:siteId/:station" element={<SiteFrame />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
    </BrowserRouter>
  );
}

function ToSurvey() {
  const { siteId } = useParams();
  return <Navigate to={`/sites/${siteId}/survey`} replace />;
}
